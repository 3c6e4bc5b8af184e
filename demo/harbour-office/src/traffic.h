#pragma once

#include <string>
#include <vector>

#include "port_services.h"
#include "quay.h"

namespace office {

// Ships that come in.
class Arrivals {
 public:
  Arrivals();
  int admit(const std::string& ship);
  int waiting() const { return static_cast<int>(waiting_.size()); }

 private:
  Quay north_;
  Quay south_{"south", 10};
  std::vector<std::string> waiting_;
};

// Ships that go out.
class Departures {
 public:
  // False when no ship lies there.
  bool clear(int berth);
  int cleared() const { return cleared_; }

 private:
  int cleared_ = 0;
};

// Runs the harbour for a day.
class HarbourMaster {
 public:
  explicit HarbourMaster(std::string name);
  int receive(const std::string& ship);
  bool dismiss(int berth) { return departures_.clear(berth); }
  std::string serve(std::size_t service, int berth) { return desk_.order(service, berth); }
  std::string summary() const;

 private:
  std::string name_;
  Arrivals arrivals_;
  Departures departures_;
  ServiceDesk desk_;
};

}  // namespace office
