#include "probe/copies.h"

#include <filesystem>
#include <fstream>

#include "base/text.h"
#include "source/walk.h"

namespace elmcart {

namespace fs = std::filesystem;

Result<std::string> copyOf(const Scratch& scratch, const std::string& path, const std::string& name, bool honourGitignore) {
  std::error_code error;
  if (fs::is_directory(path, error)) return scratch.copyTree(path, name, honourGitignore);
  fs::path to = fs::path(scratch.path()) / name;
  fs::create_directories(to, error);
  if (!error) fs::copy_file(path, to / fs::path(path).filename(), error);
  if (error) return Error{path, "could not be copied: " + error.message()};
  return to.string();
}

std::string cutSaid(const RunResult& run) {
  constexpr size_t kMost = 400;  // characters
  // Its first error, where it says one.
  std::string first, all(trim(run.err.empty() ? run.out : run.err));
  size_t errors = 0;
  for (const std::string& line : splitLines(all))
    if (line.find("error") != std::string::npos || line.find("Error") != std::string::npos) {
      if (++errors == 1) first = trim(line);
    }
  if (first.empty()) first = all;
  if (first.size() > kMost) first = first.substr(0, kMost) + " …";
  return errors > 1 ? first + " (and " + counted(errors - 1, "more line", "more lines") + " of errors)" : first;
}

std::string buildHarness(const Harness& harness, const std::string& folder, const Config& config) {
  constexpr int kMostSeconds = 600;
  RunOptions run;
  run.folder = folder;
  run.stop = config.stop.get();
  auto found = runCommand("command -v " + harness.needs, run);
  if (!found || found->exitCode != 0) return harness.needs + " is not there: install " + harness.package;
  run.seconds = kMostSeconds;
  for (const std::string& command : harness.build) {
    auto done = runCommand(command, run);
    if (!done) return done.error().line();
    if (done->stopped) return "it was interrupted";
    if (!done->ok()) return "the harness does not build (" + command.substr(0, command.find(' ')) + "): " + (done->timedOut ? "it did not end" : cutSaid(*done));
  }
  return "";
}

std::string HarnessFiles::put(const Harness& harness) {
  std::map<std::string, std::vector<FileEdit>> byFile;
  for (const FileEdit& edit : harness.edits) byFile[edit.path].push_back(edit);
  for (auto& [path, edits] : byFile) {
    auto text = readWhole(folder_ + "/" + path);
    if (!text) return text.error().line();
    auto changed = applyEdits(*text, edits);
    if (!changed) return "the harness could not be put into " + path;
    before_.try_emplace(path, *text);
    std::ofstream(folder_ + "/" + path, std::ios::binary) << *changed;
  }
  for (const ProbeFile& file : harness.files) {
    std::error_code error;
    fs::create_directories(fs::path(folder_ + "/" + file.path).parent_path(), error);
    if (!before_.contains(file.path)) {
      auto text = readWhole(folder_ + "/" + file.path);
      before_.emplace(file.path, text ? std::optional<std::string>(*text) : std::nullopt);
    }
    std::ofstream(folder_ + "/" + file.path, std::ios::binary | std::ios::app) << file.text;
  }
  return "";
}

void HarnessFiles::takeOut() {
  for (const auto& [path, text] : before_) {
    std::error_code error;
    if (text) std::ofstream(folder_ + "/" + path, std::ios::binary) << *text;
    else fs::remove(folder_ + "/" + path, error);
  }
  before_.clear();
}

}  // namespace elmcart
