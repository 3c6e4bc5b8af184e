#pragma once

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
  int loads() const { return loads_; }

 private:
  CargoScale() = default;
  void note();

  // What lies on it.
  std::vector<Crate> crates_;
  int loads_ = 0;
};
