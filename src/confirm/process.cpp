#include "confirm/process.h"

#include <fcntl.h>
#include <poll.h>
#include <signal.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cerrno>
#include <chrono>
#include <cstring>

extern char** environ;

namespace elmcart {
namespace {

struct Pipe {
  int read = -1, write = -1;
  bool open() {
    int fds[2];
    if (::pipe2(fds, O_CLOEXEC) != 0) return false;
    read = fds[0];
    write = fds[1];
    return true;
  }
  void closeRead() { if (read >= 0) ::close(read), read = -1; }
  void closeWrite() { if (write >= 0) ::close(write), write = -1; }
  ~Pipe() { closeRead(); closeWrite(); }
};

// Takes what is there; true when the other end is closed.
bool drain(int fd, std::string& into) {
  char buffer[65536];
  for (;;) {
    ssize_t n = ::read(fd, buffer, sizeof buffer);
    if (n > 0) {
      into.append(buffer, static_cast<size_t>(n));
      if (static_cast<size_t>(n) < sizeof buffer) return false;
      continue;
    }
    if (n < 0 && errno == EINTR) continue;
    return n == 0;
  }
}

}  // namespace

Result<RunResult> runCommand(const std::string& command, const RunOptions& options) {
  Pipe out, err;
  if (!out.open() || !err.open()) return Error{command, std::string("no pipe: ") + std::strerror(errno)};
  posix_spawn_file_actions_t actions;
  posix_spawn_file_actions_init(&actions);
  if (!options.folder.empty()) posix_spawn_file_actions_addchdir_np(&actions, options.folder.c_str());
  posix_spawn_file_actions_addopen(&actions, 0, "/dev/null", O_RDONLY, 0);
  posix_spawn_file_actions_adddup2(&actions, out.write, 1);
  posix_spawn_file_actions_adddup2(&actions, err.write, 2);
  posix_spawnattr_t attributes;
  posix_spawnattr_init(&attributes);
  posix_spawnattr_setflags(&attributes, POSIX_SPAWN_SETPGROUP | POSIX_SPAWN_SETSIGDEF | POSIX_SPAWN_SETSIGMASK);
  posix_spawnattr_setpgroup(&attributes, 0);
  sigset_t defaults;
  sigemptyset(&defaults);
  sigaddset(&defaults, SIGPIPE);
  sigaddset(&defaults, SIGINT);
  posix_spawnattr_setsigdefault(&attributes, &defaults);
  sigset_t none;
  sigemptyset(&none);
  posix_spawnattr_setsigmask(&attributes, &none);
  std::vector<char*> environment;
  for (char** e = environ; *e; ++e) {
    std::string_view entry(*e);
    bool replaced = false;
    for (const std::string& own : options.environment) replaced |= entry.substr(0, own.find('=') + 1) == own.substr(0, own.find('=') + 1);
    if (!replaced) environment.push_back(*e);
  }
  std::vector<std::string> own = options.environment;
  for (std::string& entry : own) environment.push_back(entry.data());
  environment.push_back(nullptr);
  std::string shell = "sh", flag = "-c", text = command;
  char* arguments[] = {shell.data(), flag.data(), text.data(), nullptr};
  pid_t child = -1;
  int failed = posix_spawn(&child, "/bin/sh", &actions, &attributes, arguments, environment.data());
  posix_spawn_file_actions_destroy(&actions);
  posix_spawnattr_destroy(&attributes);
  if (failed != 0) return Error{command, std::string("could not be started: ") + std::strerror(failed)};
  out.closeWrite();
  err.closeWrite();
  ::fcntl(out.read, F_SETFL, O_NONBLOCK);
  ::fcntl(err.read, F_SETFL, O_NONBLOCK);

  RunResult result;
  auto start = std::chrono::steady_clock::now();
  auto elapsed = [&] { return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count(); };
  int status = 0;
  bool ended = false;
  double pause = 1;
  while (!ended) {
    pollfd fds[2] = {{out.read, POLLIN, 0}, {err.read, POLLIN, 0}};
    if (out.read >= 0 || err.read >= 0) ::poll(fds, 2, static_cast<int>(pause));
    else ::usleep(static_cast<useconds_t>(pause * 1000));
    pause = std::min(pause * 1.5, 20.0);
    if (out.read >= 0 && (fds[0].revents & (POLLIN | POLLHUP)) && drain(out.read, result.out)) out.closeRead();
    if (err.read >= 0 && (fds[1].revents & (POLLIN | POLLHUP)) && drain(err.read, result.err)) err.closeRead();
    pid_t done = ::waitpid(child, &status, WNOHANG);
    if (done == child) ended = true;
    if (!ended && elapsed() > options.seconds) result.timedOut = true;
    if (result.out.size() > options.mostOutput || result.err.size() > options.mostOutput) result.tooMuchOutput = true;
    result.stopped = !ended && options.stop && options.stop->load() != 0;
    if (!ended && (result.timedOut || result.tooMuchOutput || result.stopped)) {
      ::kill(-child, SIGKILL);
      while (::waitpid(child, &status, 0) < 0 && errno == EINTR) {
      }
      ended = true;
    }
  }
  // What it left running in its group ends with it; what it wrote last is taken.
  ::kill(-child, SIGKILL);
  if (out.read >= 0) drain(out.read, result.out);
  if (err.read >= 0) drain(err.read, result.err);
  result.seconds = elapsed();
  result.exitCode = WIFEXITED(status) ? WEXITSTATUS(status) : WIFSIGNALED(status) ? 128 + WTERMSIG(status) : -1;
  return result;
}

}  // namespace elmcart
