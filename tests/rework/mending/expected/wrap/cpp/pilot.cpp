#include "pilot.h"

#include "tides.h"

bool Pilot::mayEnter(int day) const {
  tidesWrapper_.raise(1);
  return tidesWrapper_.height(day) > draught_;
}
