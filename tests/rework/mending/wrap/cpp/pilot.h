#pragma once

class Pilot {
 public:
  explicit Pilot(int draught) : draught_(draught) {}
  bool mayEnter(int day) const;

 private:
  int draught_;
};
