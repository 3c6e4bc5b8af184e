#include "probe/copies.h"

#include <filesystem>

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
    writeText(folder_ + "/" + path, *changed);
  }
  for (const ProbeFile& file : harness.files) {
    auto text = readWhole(folder_ + "/" + file.path);
    before_.try_emplace(file.path, text ? std::optional<std::string>(*text) : std::nullopt);
    writeText(folder_ + "/" + file.path, (text ? *text : "") + file.text);
  }
  return "";
}

void HarnessFiles::takeOut() {
  for (const auto& [path, text] : before_) {
    std::error_code error;
    if (text) writeText(folder_ + "/" + path, *text);
    else fs::remove(folder_ + "/" + path, error);
  }
  before_.clear();
}

}  // namespace elmcart
