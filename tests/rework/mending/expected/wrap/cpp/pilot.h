#pragma once

class TidesWrapper;

class Pilot {
 public:
  explicit Pilot(int draught, TidesWrapper& tidesWrapper) : tidesWrapper_(tidesWrapper), draught_(draught) {}
  bool mayEnter(int day) const;

 private:
  TidesWrapper& tidesWrapper_;
  int draught_;
};
