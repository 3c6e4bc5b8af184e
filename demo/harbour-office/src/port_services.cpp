#include "port_services.h"

#include "berth_book.h"
#include "duty.h"

namespace office {

std::string PortService::shipName(int berth) const {
  std::string ship = BerthBook::get().shipAt(berth);
  return ship.empty() ? "nobody" : ship;
}

std::string WaterBarge::order(int berth) {
  return "water for " + shipName(berth) + ": " + std::to_string(tons_) + " t";
}

std::string TugDispatch::order(int berth) {
  if (BerthBook::get().shipAt(berth).empty()) {
    DutyLog::log().note("no tug needed");
    return "no tug";
  }
  return "tug " + std::to_string(++sent_) + " for " + shipName(berth);
}

ServiceDesk::ServiceDesk() {
  services_.push_back(std::make_unique<WaterBarge>());
  services_.push_back(std::make_unique<TugDispatch>());
}

std::string ServiceDesk::order(std::size_t service, int berth) {
  return service < services_.size() ? services_[service]->order(berth) : "unknown service";
}

}  // namespace office
