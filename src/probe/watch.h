// Watches a piece of shared state while the project's own tests or a given
// command run: how many are made, by whom and how often it is fetched, on which
// threads, and whether that is as the survey says.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "assess/analysis.h"

namespace elmcart {

struct WatchOptions {
  std::string command;    // instead of the configuration's tests and witnesses
  std::function<void(const std::string&)> progress;
};

struct WatchedInstance {
  int process = 0;        // numbered by when they began
  int thread = 0;         // 0: not known
  double milliseconds = 0;  // since the first event of all
  double ended = -1;      // likewise; negative: its end was not seen
};

struct WatchedUser {
  std::string function;   // around the place
  std::string file;
  uint32_t line = 0;
  bool tests = false;
  size_t count = 0;
  size_t threads = 0;     // in the process with the most of them; 0: not known
  double first = 0, last = 0;  // milliseconds
};

struct WatchResult {
  std::string entity;
  std::vector<std::string> commands;   // that were run
  int exitCode = 0;                    // of the last that failed; 0: none did
  double seconds = 0;                  // of these, without the build
  std::vector<WatchedInstance> instances;  // by time
  size_t instancesMost = 0;            // in one process …
  int busiest = 0;                     // … that one
  bool makingSeen = false;             // is there a place at which a making can be seen?
  std::vector<WatchedUser> users;      // most often first; those that were never passed last
  size_t processes = 0;                // that fetched or made it
  size_t unwatched = 0;                // places that could not be watched
  std::vector<std::string> compared;   // what the survey says, and whether that was seen
  bool contradicted = false;
};

// Fails when nothing could be built or run.
Result<WatchResult> watch(const std::string& path, const Config& config, const Analysis& analysis, size_t entity, const WatchOptions& options);

}  // namespace elmcart
