#include <cassert>

#include "../harbour_clock.h"

void checkClock() {
  HarbourClock::setNow(5);
  assert(HarbourClock::now() == 5);
  HarbourClock::forward(1);
  assert(HarbourClock::now() == 6);
}
