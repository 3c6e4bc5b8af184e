#pragma once

#include <mutex>
#include <string>
#include <vector>

namespace office {

// The pilots on duty.
class PilotRoster {
 public:
  PilotRoster() = default;

  static PilotRoster* roster();

  void signOn(const std::string& pilot) { onDuty_.push_back(pilot); }
  bool signOff(const std::string& pilot);
  std::size_t strength() const { return onDuty_.size(); }

 private:
  static PilotRoster* roster_;
  static std::mutex mutex_;

  std::vector<std::string> onDuty_;
};

}  // namespace office
