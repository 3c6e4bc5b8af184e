#include "pilot.h"

#include "tides.h"

namespace office {

bool Pilot::mayEnter(int draught, int day) const { return tides_.height(day) > draught && deepEnough(&tides_, draught); }

bool deepEnough(const TideTableInterface* tides, int draught) {
  if (!tides) return false;
  return tides->height(0) > draught && !tides->name().empty();
}

}  // namespace office
