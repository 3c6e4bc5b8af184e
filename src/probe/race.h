// Runs races (race_plan.h) in a scratch copy, in fresh processes, with the code
// as it is and with what a move would write; counts in how many runs it went wrong.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "probe/race_plan.h"

namespace elmcart {

struct RaceOptions {
  int runs = 20;          // of the code as it is
  int soundRuns = 50;     // of the sound form
  int threads = 4;
  int gap = 20;           // milliseconds between reading and writing
  int seconds = 60;       // for all runs of one form; what is left is then not run
  int runSeconds = 20;    // for one run
  bool sound = true;      // try what the move would write, too
  unsigned jobs = 0;
  std::string scenario;   // creation, change, end or order; empty: all
  std::string filled;     // the text of a harness that was filled in by hand, for the first race; empty: none
  std::function<void(const std::string&)> progress;
};

struct ProbeEvent {
  char kind = 'c';        // as harness.h says
  int thread = 0;
  double milliseconds = 0;
  std::string what;
};

struct RaceRun {
  bool happened = false;
  bool failed = false;    // it crashed, hung or told nothing, and that is not what was looked for
  bool reached = false;   // it got to the place in question
  size_t made = 0;        // instances, changes or calls
  size_t distinct = 0;    // objects that the threads got
  size_t together = 0;    // most threads between reading and writing at one time
  size_t threw = 0;       // calls that failed
  int exitCode = 0;
  std::string said;       // of a failed run: its last lines
  std::vector<std::string> earlyUse;  // of an order: what the sanitizer says
  std::vector<ProbeEvent> events;  // by time
};

struct RaceForm {
  std::string name;       // "as it is", or the move
  std::string refusal;    // why it could not be run; empty: it was
  std::string harness;    // the file in which the harness stands, as written
  std::vector<RaceRun> runs;
  double seconds = 0;
  bool cutShort = false;  // the time was over before all runs
  size_t happened() const;
  size_t failed() const;
  bool reached() const;   // did any run get to the place in question?
};

struct RaceResult {
  Race race;              // without its plan
  RaceForm asItIs, sound;
  std::vector<std::string> interleaving;  // of a run in which it happened, a line each
};

// All races of the entity. Fails when the tree cannot be read or copied.
Result<std::vector<RaceResult>> raceAll(const std::string& path, const Config& config, const Analysis& analysis, size_t entity, const RaceOptions& options);

}  // namespace elmcart
