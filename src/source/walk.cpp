#include "source/walk.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <filesystem>

#include "source/ignore.h"

namespace elmcart {
namespace fs = std::filesystem;
namespace {

constexpr std::string_view kAlwaysLeftOut[] = {"node_modules", "CMakeFiles"};

struct Walker {
  WalkResult result;
  const WalkOptions& options;
  const std::function<bool(std::string_view, const std::string&)>& wanted;
  IgnoreRules rules;

  void folder(const std::string& relative, int depth) {
    std::string absolute = relative.empty() ? result.root : result.root + "/" + relative;
    if (depth > 200) {
      result.problems.push_back({relative, "folders nested more than 200 deep are left out"});
      return;
    }
    std::error_code error;
    fs::directory_iterator it(absolute, error);
    if (error) {
      result.problems.push_back({relative.empty() ? absolute : relative, "cannot read the folder: " + error.message()});
      return;
    }
    size_t rulesBefore = rules.size();
    if (options.honourGitignore) {
      if (auto text = readWhole(absolute + "/.gitignore")) rules.add(*text, relative);
    }
    std::vector<fs::directory_entry> entries;
    for (fs::directory_iterator end; it != end; it.increment(error)) {
      if (error) break;
      entries.push_back(*it);
    }
    std::sort(entries.begin(), entries.end(), [](const auto& a, const auto& b) { return a.path().native() < b.path().native(); });
    for (const fs::directory_entry& entry : entries) {
      std::string name = entry.path().filename().string();
      std::string path = relative.empty() ? name : relative + "/" + name;
      fs::file_status status = entry.symlink_status(error);
      if (error) {
        result.problems.push_back({path, "cannot look at it: " + error.message()});
        continue;
      }
      bool isFolder = fs::is_directory(status);
      if (!isFolder && !fs::is_regular_file(status)) continue;  // links, sockets, devices
      if (isLeftOut(path, isFolder, options)) continue;
      if (rules.ignored(path, isFolder)) {
        ++result.ignored;
        continue;
      }
      if (isFolder) {
        folder(path, depth + 1);
      } else if (wanted(path, absolute + "/" + name)) {
        size_t size = entry.file_size(error);
        result.files.push_back({path, absolute + "/" + name, error ? 0 : size});
      }
    }
    rules.shrinkTo(rulesBefore);
  }
};

}  // namespace

bool isLeftOut(std::string_view path, bool isFolder, const WalkOptions& options) {
  std::string_view name = path.substr(path.rfind('/') + 1);
  // Hidden folders hold tools' own things, never sources that are built.
  if (isFolder && (name.substr(0, 1) == "." || std::find(std::begin(kAlwaysLeftOut), std::end(kAlwaysLeftOut), name) != std::end(kAlwaysLeftOut))) return true;
  if (!options.leaveOut.empty())
    for (size_t end = path.find('/');; end = path.find('/', end + 1)) {
      if (options.leaveOut.match(path.substr(0, end))) return true;
      if (end == std::string_view::npos) break;
    }
  // One of those asked for, inside one, or a folder on the way to one.
  auto below = [](std::string_view inner, std::string_view outer) {
    return outer.empty() || inner == outer || (inner.size() > outer.size() && inner.substr(0, outer.size()) == outer && inner[outer.size()] == '/');
  };
  for (const std::string& only : options.only)
    if (below(path, only) || (isFolder && below(only, path))) return false;
  return !options.only.empty();
}

Result<WalkResult> walkTree(const std::string& path, const WalkOptions& options,
                            const std::function<bool(std::string_view, const std::string&)>& wanted) {
  std::error_code error;
  fs::path absolute = fs::canonical(path, error);
  if (error) return Error{path, error.message() == "No such file or directory" ? "no such file or folder" : error.message()};
  Walker walker{{}, options, wanted, {}};
  if (fs::is_directory(absolute, error)) {
    walker.result.root = absolute.string();
    walker.folder("", 0);
  } else {
    walker.result.root = absolute.parent_path().string();
    std::string name = absolute.filename().string();
    if (!wanted(name, absolute.string())) return Error{path, "not a source file of a language that is read"};
    walker.result.files.push_back({name, absolute.string(), fs::file_size(absolute, error)});
  }
  std::sort(walker.result.files.begin(), walker.result.files.end(), [](const FoundFile& a, const FoundFile& b) { return a.path < b.path; });
  return std::move(walker.result);
}

Result<std::string> readWhole(const std::string& absolute) {
  int fd = ::open(absolute.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
  if (fd < 0) return Error{absolute, std::string("cannot be read: ") + std::strerror(errno)};
  struct stat info {};
  if (::fstat(fd, &info) != 0 || !S_ISREG(info.st_mode)) {
    ::close(fd);
    return Error{absolute, "cannot be read: not a regular file"};
  }
  std::string text;
  text.resize(static_cast<size_t>(info.st_size));
  size_t got = 0;
  // The file may shrink or grow while it is read: what was there is what counts.
  for (;;) {
    if (got == text.size()) break;
    ssize_t n = ::read(fd, text.data() + got, text.size() - got);
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) {
      std::string reason = std::strerror(errno);
      ::close(fd);
      return Error{absolute, "cannot be read: " + reason};
    }
    if (n == 0) break;
    got += static_cast<size_t>(n);
  }
  ::close(fd);
  text.resize(got);
  return text;
}

bool saysItsLanguage(std::string_view text) { return text.starts_with("#!") || text.substr(0, text.find('\n')).find("-*-") != std::string_view::npos; }

bool saysItsLanguageAt(const std::string& absolute) {
  int fd = ::open(absolute.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
  if (fd < 0) return false;
  char first[120] = {};
  ssize_t got = ::read(fd, first, sizeof first);
  ::close(fd);
  return got > 1 && saysItsLanguage({first, static_cast<size_t>(got)});
}

Result<std::string> readSource(const std::string& absolute) {
  std::error_code error;
  size_t size = fs::file_size(absolute, error);
  if (!error && size > kLargestFile)
    return Error{absolute, "left out: " + std::to_string(size >> 20) + " MiB, more than the " + std::to_string(kLargestFile >> 20) + " MiB that a source file may have"};
  auto text = readWhole(absolute);
  if (!text) return text;
  if (std::memchr(text->data(), 0, std::min<size_t>(text->size(), 8192)) != nullptr) return Error{absolute, "left out: holds NUL bytes, so it is no source text"};
  return text;
}

std::vector<uint32_t> lineStartsOf(std::string_view text) {
  std::vector<uint32_t> starts = {0};
  starts.reserve(text.size() / 32 + 1);
  for (size_t at = text.find('\n'); at != std::string_view::npos; at = text.find('\n', at + 1)) starts.push_back(static_cast<uint32_t>(at + 1));
  return starts;
}

}  // namespace elmcart
