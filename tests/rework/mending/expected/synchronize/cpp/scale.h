#pragma once

#include <mutex>
#include <vector>

#include "crate.h"

// Weighed by several cranes at once.
class CargoScale {
 public:
  static CargoScale& scale();
  CargoScale(const CargoScale&) = delete;
  CargoScale& operator=(const CargoScale&) = delete;

  void weigh(const Crate& crate);
  void weighTwice(const Crate& crate);
  int loads() const { std::lock_guard<std::recursive_mutex> hold(mutex_); return loads_; }

 private:
  CargoScale() = default;
  void note();

  mutable std::recursive_mutex mutex_;
  // What lies on it.
  std::vector<Crate> crates_;
  int loads_ = 0;
};
