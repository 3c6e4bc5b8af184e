#pragma once

namespace office {

class TideTable;

class Pilot {
 public:
  explicit Pilot(TideTable& tides) : tides_(tides) {}
  bool mayEnter(int draught, int day) const;

 private:
  TideTable& tides_;
};

bool deepEnough(const TideTable* tides, int draught);

}  // namespace office
