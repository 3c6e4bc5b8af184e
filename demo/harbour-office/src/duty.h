#pragma once

#include <map>
#include <memory>
#include <mutex>
#include <string>
#include <vector>

namespace office {

// What happened on a watch. One for the whole office, and rightly so: it is
// written to from everywhere, read by nobody who decides on it, and locked.
class DutyLog {
 public:
  static DutyLog& log();

  DutyLog(const DutyLog&) = delete;
  DutyLog& operator=(const DutyLog&) = delete;

  void note(const std::string& line);

 private:
  DutyLog() = default;

  std::mutex mutex_;
  std::vector<std::string> lines_;
};

// The officer whose watch it is on this thread.
class Officer {
 public:
  explicit Officer(std::string name);
  const std::string& name() const { return name_; }

 private:
  std::string name_;
};
Officer* officerOnWatch();
void setOfficerOnWatch(Officer* officer);

// Boats by name, made on first asking.
class PilotBoat {
 public:
  explicit PilotBoat(std::string name);
  void trip() { ++trips_; }
  int trips() const { return trips_; }

 private:
  std::string name_;
  int trips_ = 0;
};
PilotBoat& pilotBoat(const std::string& name);

// The last depth sounded on this thread, in decimetres.
extern thread_local int lastSounding;

}  // namespace office
