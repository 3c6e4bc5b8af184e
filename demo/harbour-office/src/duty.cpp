#include "duty.h"

#include <utility>

namespace office {

thread_local int lastSounding = 0;

DutyLog& DutyLog::log() {
  static DutyLog instance;
  return instance;
}

void DutyLog::note(const std::string& line) {
  std::lock_guard<std::mutex> hold(mutex_);
  lines_.push_back(line);
}

Officer::Officer(std::string name) : name_(std::move(name)) {}

static thread_local Officer* onWatch = nullptr;

Officer* officerOnWatch() { return onWatch; }

void setOfficerOnWatch(Officer* officer) { onWatch = officer; }

PilotBoat::PilotBoat(std::string name) : name_(std::move(name)) {}

PilotBoat& pilotBoat(const std::string& name) {
  static std::map<std::string, std::unique_ptr<PilotBoat>> boats;
  auto& boat = boats[name];
  if (!boat) boat = std::make_unique<PilotBoat>(name);
  return *boat;
}

}  // namespace office
