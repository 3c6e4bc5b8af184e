// Which functions can run on a second thread: reached, through calls in the
// program, from code that is handed to a thread when one is started.
#pragma once

#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "program/program.h"

namespace elmcart {

class Threads {
 public:
  explicit Threads(const Program& program);
  // Are threads started, are locks taken, anywhere in code of that file's language?
  bool anyStarted(FileIndex f) const { return started_.count(p_.language(f).id) > 0; }
  // … in a file of the same folder: one program of many in a tree may have threads, others not.
  bool anyStartedNear(FileIndex f) const { return startedIn_.count(folderOf(f)) > 0; }
  bool anyLocks(FileIndex f) const { return locked_.count(p_.language(f).id) > 0; }
  // Where the thread is started that reaches the function; not known when none is seen.
  Place startReaching(FunctionIndex function) const { return reachedFrom_[function]; }
  bool reaches(FunctionIndex function) const { return function != kNone && reachedFrom_[function].known(); }
  // Is the place inside a lambda that is handed to a thread?
  bool startsAt(Place place, Place* start) const;

 private:
  std::string_view folderOf(FileIndex f) const;

  const Program& p_;
  std::set<std::string, std::less<>> startedIn_;  // folders
  std::vector<Place> starts_;        // nodes whose inside runs on the new thread
  std::vector<Place> reachedFrom_;   // by function
  std::set<std::string_view> started_, locked_;  // ids of languages
};

}  // namespace elmcart
