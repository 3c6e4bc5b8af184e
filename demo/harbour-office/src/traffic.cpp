#include "traffic.h"

#include <utility>

#include "berth_book.h"
#include "duty.h"
#include "scales.h"

namespace office {

Arrivals::Arrivals() : north_("north", 1, 2) {}

int Arrivals::admit(const std::string& ship) {
  int berth = north_.moor(ship);
  if (berth < 0) berth = south_.moor(ship);
  if (berth < 0) waiting_.push_back(ship);
  takeTicket();
  return berth;
}

bool Departures::clear(int berth) {
  BerthBook& book = BerthBook::get();
  std::string ship = book.shipAt(berth);
  if (ship.empty()) return false;
  book.release(berth);
  ++cleared_;
  DutyLog::log().note(ship + " cleared");
  return true;
}

HarbourMaster::HarbourMaster(std::string name) : name_(std::move(name)) {}

int HarbourMaster::receive(const std::string& ship) { return arrivals_.admit(ship); }

std::string HarbourMaster::summary() const {
  return name_ + ": " + std::to_string(BerthBook::get().occupied()) + " berthed, " +
         std::to_string(arrivals_.waiting()) + " waiting, " + std::to_string(departures_.cleared()) + " cleared";
}

}  // namespace office
