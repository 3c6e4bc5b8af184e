#include "pilot.h"

#include "tides.h"

bool Pilot::mayEnter(int day) const {
  Tides::raise(1);
  return Tides::height(day) > draught_;
}
