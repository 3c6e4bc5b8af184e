#include "harbour_clock.h"

namespace office {

HarbourClock harbourClock;

HarbourClock::HarbourClock() : day_(0) {}

}  // namespace office
