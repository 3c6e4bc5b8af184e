#include "confirm/scratch.h"

#include <signal.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <functional>

#include "source/ignore.h"
#include "source/walk.h"

namespace elmcart {
namespace fs = std::filesystem;
namespace {

constexpr std::string_view kPrefix = "elmcart-scratch-";

// Null rules: what .gitignore files say does not count.
void copyFolder(const fs::path& from, const fs::path& to, const std::string& relative, IgnoreRules* rules, std::error_code& error) {
  fs::create_directories(to, error);
  if (error) return;
  size_t before = rules ? rules->size() : 0;
  if (rules)
    if (auto text = readWhole((from / ".gitignore").string())) rules->add(*text, relative);
  for (fs::directory_iterator it(from, error), end; !error && it != end; it.increment(error)) {
    std::string name = it->path().filename().string();
    std::string path = relative.empty() ? name : relative + "/" + name;
    std::error_code own;
    fs::file_status status = it->symlink_status(own);
    bool folder = fs::is_directory(status);
    // What an interpreter kept of an earlier run would be used instead of the sources.
    // Where the temporary folder is in the tree itself, a copy would hold itself.
    if (name == ".git" || name == ".elmcart" || name.starts_with(kPrefix) || (folder && name == "__pycache__")) continue;
    if (rules && rules->ignored(path, folder)) {
      // What a package manager fetched is ignored by git and needed by the build.
      bool fetched = folder && ((name == "node_modules" && fs::exists(from / "package.json", own)) || (name == "vendor" && fs::exists(from / "composer.json", own)));
      if (fetched) copyFolder(it->path(), to / name, path, nullptr, error);
      if (error) return;
      continue;
    }
    if (folder) {
      if (fs::exists(it->path() / "CMakeCache.txt", own)) continue;
      copyFolder(it->path(), to / name, path, rules, error);
      if (error) return;
    } else if (fs::is_symlink(status)) {
      fs::copy_symlink(it->path(), to / name, own);
    } else if (fs::is_regular_file(status)) {
      fs::copy_file(it->path(), to / name, error);
      if (error) return;
      // Builds look at times: a copy is as old as its original.
      fs::last_write_time(to / name, fs::last_write_time(it->path(), own), own);
    }
  }
  if (rules) rules->shrinkTo(before);
}

}  // namespace

Result<Scratch> Scratch::make() {
  std::error_code error;
  fs::path base = fs::temp_directory_path(error);
  if (error) base = "/tmp";
  std::string pattern = (base / (std::string(kPrefix) + std::to_string(::getpid()) + "-XXXXXX")).string();
  if (!::mkdtemp(pattern.data())) return Error{pattern, std::string("no scratch folder: ") + std::strerror(errno)};
  return Scratch(pattern);
}

Scratch::Scratch(Scratch&& other) noexcept : path_(std::move(other.path_)) { other.path_.clear(); }

Scratch::~Scratch() {
  if (path_.empty()) return;
  std::error_code error;
  fs::remove_all(path_, error);
}

Result<std::string> Scratch::copyTree(const std::string& root, const std::string& name, bool honourGitignore) const {
  std::error_code error;
  IgnoreRules rules;
  fs::path to = fs::path(path_) / name;
  copyFolder(root, to, "", honourGitignore ? &rules : nullptr, error);
  if (error) return Error{root, "could not be copied: " + error.message()};
  return to.string();
}

namespace {

// Removes the scratch folders of the processes that `ended` says yes to.
size_t removeScratchOf(const std::function<bool(long process)>& ended) {
  std::error_code error;
  fs::path base = fs::temp_directory_path(error);
  if (error) return 0;
  size_t removed = 0;
  for (fs::directory_iterator it(base, error), end; !error && it != end; it.increment(error)) {
    std::string name = it->path().filename().string();
    if (name.compare(0, kPrefix.size(), kPrefix) != 0) continue;
    long process = std::strtol(name.c_str() + kPrefix.size(), nullptr, 10);
    if (process <= 0 || !ended(process)) continue;
    std::error_code own;
    fs::remove_all(it->path(), own);
    ++removed;
  }
  return removed;
}

}  // namespace

bool writeText(const std::string& path, const std::string& text) {
  std::error_code error;
  fs::create_directories(fs::path(path).parent_path(), error);
  std::ofstream out(path, std::ios::binary | std::ios::trunc);
  out << text;
  return static_cast<bool>(out.flush());
}

size_t removeStrayScratch() {
  return removeScratchOf([](long process) { return ::kill(static_cast<pid_t>(process), 0) != 0 && errno != EPERM; });
}

size_t removeOwnScratch() {
  return removeScratchOf([](long process) { return process == ::getpid(); });
}

}  // namespace elmcart
