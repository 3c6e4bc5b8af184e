#include "night_watch.h"

#include "duty.h"
#include "pilot_roster.h"
#include "scales.h"

namespace office {

void NightWatch::start() {
  thread_ = std::thread([this] { walk(); });
}

void NightWatch::stop() {
  if (thread_.joinable()) thread_.join();
}

void NightWatch::walk() {
  if (PilotRoster::roster()->strength() == 0) DutyLog::log().note("no pilot on duty");
  takeTicket();
  nextBuoy();
  rounds_.fetch_add(1);
}

std::size_t reserveStrength() {
  PilotRoster reserve;
  reserve.signOn("reserve pilot");
  return reserve.strength();
}

}  // namespace office
