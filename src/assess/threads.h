// Which functions can run on a second thread: reached, through calls in the
// program, from code that is handed to a thread when one is started.
#pragma once

#include <vector>

#include "program/program.h"

namespace elmcart {

class Threads {
 public:
  explicit Threads(const Program& program);
  bool anyStarted() const { return !starts_.empty(); }
  bool anyLocks() const { return locks_; }
  // Where the thread is started that reaches the function; not known when none is seen.
  Place startReaching(FunctionIndex function) const { return reachedFrom_[function]; }
  bool reaches(FunctionIndex function) const { return function != kNone && reachedFrom_[function].known(); }
  // Is the place inside a lambda that is handed to a thread?
  bool startsAt(Place place, Place* start) const;

 private:
  const Program& p_;
  std::vector<Place> starts_;        // nodes whose inside runs on the new thread
  std::vector<Place> reachedFrom_;   // by function
  bool locks_ = false;
};

}  // namespace elmcart
