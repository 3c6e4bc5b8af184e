#pragma once
#include <string>

class Beacon {
 public:
  Beacon();
  Beacon(const Beacon&) = delete;
  int period() const { return period_; }
  void set(int period) { period_ = period; }

 private:
  int period_;
};
extern Beacon beacon;

class Almanac {
 public:
  explicit Almanac(const std::string& path);
  Almanac(const Almanac&) = delete;
  int days() const { return days_; }

 private:
  int days_ = 0;
};
extern Almanac almanac;
