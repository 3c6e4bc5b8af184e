#include "pilot_roster.h"

#include <algorithm>

namespace office {

PilotRoster* PilotRoster::roster_ = nullptr;
std::mutex PilotRoster::mutex_;

PilotRoster* PilotRoster::roster() {
  if (!roster_) {
    std::lock_guard<std::mutex> hold(mutex_);
    if (!roster_) roster_ = new PilotRoster;
  }
  return roster_;
}

bool PilotRoster::signOff(const std::string& pilot) {
  auto found = std::find(onDuty_.begin(), onDuty_.end(), pilot);
  if (found == onDuty_.end()) return false;
  onDuty_.erase(found);
  return true;
}

}  // namespace office
