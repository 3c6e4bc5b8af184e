// Times a survey against a bare parse of the same files with the same number
// of threads, turn by turn in one run, so that the machine's mood falls on both.
//   elmcart_bench FOLDER [THREADS] [TURNS] [bare]
// With `bare` the bare parse alone is timed: scripts/benchmark.sh runs that with
// the system's allocator in the place of the program's.
#include <fmt/format.h>
#include <sys/resource.h>

#include <algorithm>
#include <chrono>

#include "assess/analysis.h"
#include "base/parallel.h"
#include "source/walk.h"

using namespace elmcart;

namespace {

double seconds(auto work) {
  auto start = std::chrono::steady_clock::now();
  work();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
}

double median(std::vector<double> values) {
  std::sort(values.begin(), values.end());
  return values[values.size() / 2];
}

long peakKilobytes() {
  rusage usage{};
  getrusage(RUSAGE_SELF, &usage);
  return usage.ru_maxrss;
}

}  // namespace

int main(int argc, char** argv) {
  if (argc < 2) {
    fmt::print(stderr, "usage: elmcart_bench FOLDER [THREADS] [TURNS] [bare]\n");
    return 2;
  }
  unsigned threads = argc > 2 ? static_cast<unsigned>(std::max(1, std::atoi(argv[2]))) : 2;
  int turns = argc > 3 ? std::max(1, std::atoi(argv[3])) : 5;
  bool bareOnly = argc > 4 && std::string_view(argv[4]) == "bare";
  std::vector<double> parse, survey, assess, ratios;
  size_t bytes = 0, files = 0;
  long after = 0;
  for (int turn = 0; turn < turns; ++turn) {
    if (!bareOnly) survey.push_back(seconds([&] {
      auto analysis = analyse(argv[1], Config{}, threads, false);
      if (!analysis) return;
      bytes = (*analysis)->bytes;
      files = (*analysis)->program.files.size();
    }));
    if (turn == 0) after = peakKilobytes();
    parse.push_back(seconds([&] {
      auto walked = walkTree(argv[1], {}, isWanted);
      if (!walked) return;
      std::vector<size_t> sizes;
      for (const FoundFile& file : walked->files) sizes.push_back(file.size);
      forEachLargestFirst(sizes, threads, [&](size_t i) {
        auto text = readSource(walked->files[i].absolute);
        if (!text) return;
        if (const Language* language = languageOf(walked->files[i].path, *text)) language->parseOnly(*text);
      });
    }));
    if (bareOnly) continue;
    assess.push_back(seconds([&] { (void)analyse(argv[1], Config{}, threads, true).ok(); }));
    ratios.push_back(survey.back() / parse.back());
  }
  auto spread = [](const std::vector<double>& v) { return fmt::format("{:.3f} s ({:.3f} to {:.3f})", median(v), *std::min_element(v.begin(), v.end()), *std::max_element(v.begin(), v.end())); };
  if (!bareOnly) fmt::print("{} files, {} bytes, {} threads, {} turns\n", files, bytes, threads, turns);
  fmt::print("bare parse  {}\n", spread(parse));
  if (bareOnly) return 0;
  fmt::print("survey      {}\n", spread(survey));
  fmt::print("assess      {}\n", spread(assess));
  fmt::print("survey / bare parse  {:.2f} ({:.2f} to {:.2f})\n", median(ratios), *std::min_element(ratios.begin(), ratios.end()), *std::max_element(ratios.begin(), ratios.end()));
  fmt::print("peak memory after the first survey  {} KB, {:.1f} bytes a byte of source\n", after, 1024.0 * static_cast<double>(after) / static_cast<double>(std::max<size_t>(bytes, 1)));
  return 0;
}
