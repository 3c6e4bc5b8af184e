#include "rework/write_back.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "source/walk.h"

namespace elmcart {
namespace fs = std::filesystem;
namespace {

constexpr std::string_view kTemporary = ".elmcart-new";

Result<Done> writeWhole(const std::string& path, const std::string& text, mode_t mode) {
  int fd = ::open(path.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, mode);
  if (fd < 0) return Error{path, std::string("cannot be written: ") + std::strerror(errno)};
  size_t done = 0;
  while (done < text.size()) {
    ssize_t n = ::write(fd, text.data() + done, text.size() - done);
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) {
      std::string reason = std::strerror(errno);
      ::close(fd);
      ::unlink(path.c_str());
      return Error{path, "cannot be written: " + reason};
    }
    done += static_cast<size_t>(n);
  }
  ::fchmod(fd, mode);
  if (::fsync(fd) != 0 || ::close(fd) != 0) return Error{path, std::string("cannot be written: ") + std::strerror(errno)};
  return Done{};
}

Result<Done> replaceFile(const std::string& path, const std::string& text) {
  struct stat info {};
  mode_t mode = ::stat(path.c_str(), &info) == 0 ? info.st_mode & 07777 : 0644;
  std::string temporary = path + std::string(kTemporary);
  auto written = writeWhole(temporary, text, mode);
  if (!written) return written;
  if (::rename(temporary.c_str(), path.c_str()) != 0) return Error{path, std::string("cannot be replaced: ") + std::strerror(errno)};
  return Done{};
}

// What a file holds now, as far as the job is concerned.
enum class State { Before, After, Other };
Result<State> stateOf(const std::string& root, const WriteBackFile& file) {
  std::string path = root + "/" + file.path;
  std::error_code error;
  if (file.isNew && !fs::exists(path, error) && !error) return State::Before;
  auto now = readWhole(path);
  if (!now) return now.error();
  if (*now == file.after) return State::After;
  return !file.isNew && *now == file.before ? State::Before : State::Other;
}

struct Job {
  std::string folder;       // the journal's
  bool backwards = false;
  std::vector<WriteBackFile> files;
};

Result<Job> readJob(const std::string& folder) {
  auto text = readWhole(folder + "/manifest.json");
  if (!text) return text.error();
  nlohmann::json manifest = nlohmann::json::parse(*text, nullptr, false);
  if (manifest.is_discarded() || !manifest.contains("files")) return Error{folder, "the journal cannot be read"};
  Job job;
  job.folder = folder;
  std::error_code error;
  job.backwards = fs::exists(folder + "/backwards", error);
  size_t number = 0;
  for (const auto& path : manifest["files"]) {
    auto before = readWhole(folder + "/before/" + std::to_string(number));
    auto after = readWhole(folder + "/after/" + std::to_string(number));
    if (!before) return before.error();
    if (!after) return after.error();
    job.files.push_back({path.get<std::string>(), *before, *after});
    ++number;
  }
  for (const auto& path : manifest.value("new", nlohmann::json::array()))
    for (WriteBackFile& file : job.files) file.isNew |= file.path == path.get<std::string>();
  return job;
}

// Carries the job out in its direction. A file that holds neither the old nor
// the new text was changed by somebody else and is left alone: nothing is lost.
Result<WriteBackDone> carryOut(const std::string& root, const Job& job) {
  WriteBackDone out;
  out.what = job.backwards ? "taken back" : "written";
  for (const WriteBackFile& file : job.files) {
    std::error_code error;
    fs::remove(root + "/" + file.path + std::string(kTemporary), error);
    auto now = stateOf(root, file);
    if (!now) return now.error();
    if (*now == State::Other) return Error{file.path, "was changed since; it is left as it is, and the journal stays in .elmcart"};
  }
  for (const WriteBackFile& file : job.files) {
    auto now = stateOf(root, file);
    if (now && *now == (job.backwards ? State::Before : State::After)) continue;
    if (file.isNew && job.backwards) {
      if (::unlink((root + "/" + file.path).c_str()) != 0) return Error{file.path, std::string("cannot be taken away: ") + std::strerror(errno)};
    } else {
      auto replaced = replaceFile(root + "/" + file.path, job.backwards ? file.before : file.after);
      if (!replaced) return replaced.error();
    }
    out.files.push_back(file.path);
  }
  return out;
}

// Puts the journal away. A folder is renamed before it is removed: what a kill
// leaves half removed is of no account.
Result<Done> finish(const std::string& root, const Job& job) {
  std::error_code error;
  std::string last = root + "/.elmcart/last", gone = root + "/.elmcart/gone";
  fs::remove_all(gone, error);
  fs::rename(job.backwards ? job.folder : last, gone, error);
  if (!job.backwards && job.folder != last) {
    fs::rename(job.folder, last, error);
    if (error) return Error{job.folder, "the journal cannot be put away: " + error.message()};
  }
  fs::remove_all(gone, error);
  return Done{};
}

Result<WriteBackDone> carryOutAndFinish(const std::string& root, const std::string& folder) {
  auto job = readJob(folder);
  if (!job) return job.error();
  auto done = carryOut(root, *job);
  if (!done) return done;
  auto finished = finish(root, *job);
  if (!finished) return finished.error();
  return done;
}

}  // namespace

bool hasInterruptedJob(const std::string& root) {
  std::error_code error;
  return fs::exists(root + "/.elmcart/journal", error) || fs::exists(root + "/.elmcart/last/backwards", error);
}

Result<WriteBackDone> writeBack(const std::string& root, const std::vector<WriteBackFile>& files) {
  if (hasInterruptedJob(root)) return Error{root, "an earlier job was interrupted: finish it with `elmcart rework --resume` or take it back with `elmcart rework --undo`"};
  for (const WriteBackFile& file : files) {
    auto now = stateOf(root, file);
    if (!now) return now.error();
    if (*now != State::Before) return Error{file.path, file.isNew ? "is there already; nothing was written" : "was changed while the rework ran; nothing was written"};
  }
  std::error_code error;
  std::string fresh = root + "/.elmcart/journal.new", journal = root + "/.elmcart/journal";
  fs::remove_all(fresh, error);
  fs::create_directories(fresh + "/before", error);
  fs::create_directories(fresh + "/after", error);
  if (error) return Error{fresh, "no journal can be kept: " + error.message()};
  nlohmann::ordered_json manifest = {{"schema", "elmcart.journal/1"}, {"files", nlohmann::ordered_json::array()}};
  for (size_t i = 0; i < files.size(); ++i) {
    manifest["files"].push_back(files[i].path);
    if (files[i].isNew) manifest["new"].push_back(files[i].path);
    auto before = writeWhole(fresh + "/before/" + std::to_string(i), files[i].before, 0644);
    if (!before) return before.error();
    auto after = writeWhole(fresh + "/after/" + std::to_string(i), files[i].after, 0644);
    if (!after) return after.error();
  }
  auto written = writeWhole(fresh + "/manifest.json", manifest.dump(2) + "\n", 0644);
  if (!written) return written.error();
  fs::rename(fresh, journal, error);  // from here on the job is under way
  if (error) return Error{journal, "no journal can be kept: " + error.message()};
  return resumeJob(root);
}

Result<WriteBackDone> resumeJob(const std::string& root) {
  std::error_code error;
  std::string folder = root + "/.elmcart/journal";
  if (!fs::exists(folder, error)) folder = root + "/.elmcart/last";
  if (!hasInterruptedJob(root)) return Error{root, "there is no interrupted job to finish"};
  return carryOutAndFinish(root, folder);
}

Result<WriteBackDone> undoJob(const std::string& root) {
  std::error_code error;
  std::string folder = root + "/.elmcart/journal";
  if (!fs::exists(folder, error)) folder = root + "/.elmcart/last";
  if (!fs::exists(folder + "/manifest.json", error)) return Error{root, "there is no job to take back"};
  // Nobody else's change may be overwritten: look before the direction is turned.
  auto looked = readJob(folder);
  if (!looked) return looked.error();
  for (const WriteBackFile& file : looked->files) {
    auto now = stateOf(root, file);
    if (!now) return now.error();
    if (*now == State::Other) return Error{file.path, "was changed since; nothing was taken back"};
  }
  auto turned = writeWhole(folder + "/backwards", "", 0644);
  if (!turned) return turned.error();
  return carryOutAndFinish(root, folder);
}

}  // namespace elmcart
