// Running a command of the user's: in a folder, in a process group of its own,
// with a time limit and bounded output. The whole group is ended at the limit.
#pragma once

#include <atomic>
#include <string>
#include <vector>

#include "base/result.h"

namespace elmcart {

struct RunOptions {
  std::string folder;
  int seconds = 600;
  size_t mostOutput = 32u << 20;  // bytes of stdout and of stderr each; beyond it the command is ended
  std::vector<std::string> environment;  // "NAME=value", on top of the inherited one
  const std::atomic<int>* stop = nullptr;  // when it is no longer 0, the command is ended
};

struct RunResult {
  int exitCode = -1;        // 128 + signal when a signal ended it
  bool timedOut = false;
  bool tooMuchOutput = false;
  bool stopped = false;
  double seconds = 0;
  std::string out, err;
  bool ok() const { return exitCode == 0 && !timedOut && !tooMuchOutput && !stopped; }
};

// Runs `command` with /bin/sh. Fails only when it could not be started.
Result<RunResult> runCommand(const std::string& command, const RunOptions& options);

}  // namespace elmcart
