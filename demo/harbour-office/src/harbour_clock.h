#pragma once

namespace office {

// Harbour time, in days and minutes since the season opened.
class HarbourClock {
 public:
  HarbourClock();
  HarbourClock(const HarbourClock&) = delete;
  HarbourClock& operator=(const HarbourClock&) = delete;

  int day() const { return day_; }
  void nextDay() { ++day_; }

 private:
  int day_;
};

extern HarbourClock harbourClock;

}  // namespace office
