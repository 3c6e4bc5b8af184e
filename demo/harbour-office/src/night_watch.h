#pragma once

#include <atomic>
#include <thread>

namespace office {

// Looks after the harbour on a thread of its own.
class NightWatch {
 public:
  ~NightWatch() { stop(); }
  void start();
  void stop();
  int rounds() const { return rounds_.load(); }

 private:
  void walk();

  std::thread thread_;
  std::atomic<int> rounds_{0};
};

// The pilots that may be called in for a night, beside those on duty.
std::size_t reserveStrength();

}  // namespace office
