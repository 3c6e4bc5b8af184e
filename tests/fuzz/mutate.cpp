// Mutates the samples of each language and takes what comes out the whole way:
// parse, lower, link, survey, assess. To be built with the sanitizers.
//   mutate SAMPLES_FOLDER SECONDS_EACH [SEED [LANGUAGE]]
#include <fmt/format.h>

#include <chrono>
#include <filesystem>
#include <fstream>
#include <random>

#include "assess/assess.h"
#include "program/load.h"
#include "source/walk.h"

using namespace elmcart;
namespace fs = std::filesystem;

namespace {

struct Sample {
  std::string path, text;
};

class Mutator {
 public:
  Mutator(const std::vector<Sample>& samples, unsigned seed) : samples_(samples), random_(seed) {}

  Sample next() {
    Sample out = samples_[below(samples_.size())];
    for (size_t n = 1 + below(6); n > 0; --n) mutate(out.text);
    return out;
  }

 private:
  size_t below(size_t n) { return n == 0 ? 0 : random_() % n; }

  void mutate(std::string& text) {
    size_t at = below(text.size() + 1), length = std::min(below(40), text.size() - at);
    const std::string& other = samples_[below(samples_.size())].text;
    size_t from = below(other.size()), much = std::min(below(200), other.size() - from);
    switch (below(8)) {
      case 0: text.erase(at, length); break;
      case 1: text.insert(at, text.substr(at, length)); break;
      case 2: text.insert(at, other, from, much); break;
      case 3: text.resize(at); break;
      case 4: if (at < text.size()) text[at] = static_cast<char>(random_()); break;
      case 5: {  // a word in the place of another
        static constexpr std::string_view kWords[] = {"class", "static", "{", "}", "(", ")", ";", "=", "null", "new", "::", ".", "<", ">", "\"", "'", "/*", "#if", "this", "self", "async", "await", "??", "@", "\\", "\0"};
        text.replace(at, std::min<size_t>(length, 8), kWords[below(std::size(kWords))]);
        break;
      }
      case 6: {  // deep nesting
        std::string deep(below(3000), "([{<"[below(4)]);
        text.insert(at, deep);
        break;
      }
      default: {  // two lines change places
        size_t a = text.find('\n', at), b = a == std::string::npos ? a : text.find('\n', a + 1);
        if (b != std::string::npos) text = text.substr(0, at) + text.substr(a, b - a) + text.substr(at, a - at) + text.substr(b);
      }
    }
  }

  const std::vector<Sample>& samples_;
  std::mt19937 random_;
};

void wholeWay(const std::vector<Sample>& tree) {
  std::vector<LoweredFile> files;
  for (const Sample& sample : tree) files.push_back(lowerText(sample.path, sample.text));
  Program program = link("", std::move(files), 1);
  Origins origins(program);
  Survey survey = surveyProgram(program, origins);
  Config config;
  Judging judging(program, origins, survey, config);
  (void)assessProgram(judging.subject);
}

}  // namespace

int main(int argc, char** argv) {
  if (argc < 3) {
    fmt::print(stderr, "usage: mutate SAMPLES_FOLDER SECONDS_EACH [SEED [LANGUAGE]]\n");
    return 2;
  }
  double seconds = std::atof(argv[2]);
  unsigned seed = argc > 3 ? static_cast<unsigned>(std::atoi(argv[3])) : 1;
  for (const Language& language : languages()) {
    if (argc > 4 && language.id != argv[4]) continue;
    std::vector<Sample> samples;
    for (const auto& entry : fs::recursive_directory_iterator(argv[1])) {
      if (!entry.is_regular_file()) continue;
      auto text = readWhole(entry.path().string());
      if (text && languageOf(entry.path().string(), *text) == &language) samples.push_back({entry.path().filename().string(), *text});
    }
    if (samples.empty()) continue;
    Mutator mutator(samples, seed);
    size_t runs = 0;
    double slowest = 0;
    auto start = std::chrono::steady_clock::now();
    auto since = [](auto then) { return std::chrono::duration<double>(std::chrono::steady_clock::now() - then).count(); };
    while (since(start) < seconds) {
      Sample mutant = mutator.next();
      // What was being done, for when it ends badly.
      fs::path kept = fs::temp_directory_path() / ("elmcart-mutant-" + std::string(language.id));
      std::ofstream(kept, std::ios::binary) << mutant.text;
      auto begun = std::chrono::steady_clock::now();
      wholeWay({mutant, samples[runs % samples.size()]});
      ++runs;
      if (double took = since(begun); took > slowest) {
        slowest = took;
        fs::copy_file(kept, kept.string() + "-slowest", fs::copy_options::overwrite_existing);
      }
    }
    fmt::print("{:<12} {} mutants of {} samples, the slowest {:.2f} s\n", language.name, runs, samples.size(), slowest);
  }
  return 0;
}
