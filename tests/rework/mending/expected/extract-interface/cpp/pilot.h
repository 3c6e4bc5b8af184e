#pragma once

namespace office {

class TideTable;
class TideTableInterface;

class Pilot {
 public:
  explicit Pilot(TideTableInterface& tides) : tides_(tides) {}
  bool mayEnter(int draught, int day) const;

 private:
  TideTableInterface& tides_;
};

bool deepEnough(const TideTableInterface* tides, int draught);

}  // namespace office
