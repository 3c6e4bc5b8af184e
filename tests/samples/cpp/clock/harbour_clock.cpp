#include "harbour_clock.h"

#include <ctime>

double HarbourClock::fixed_ = -1;

double HarbourClock::now() { return fixed_ >= 0 ? fixed_ : static_cast<double>(std::time(nullptr)); }
void HarbourClock::setNow(double seconds) { fixed_ = seconds; }
void HarbourClock::forward(double seconds) { fixed_ += seconds; }

struct TideClerk {
  double at() { return HarbourClock::now(); }
};
struct BellClerk {
  double at() { return HarbourClock::now(); }
};
struct GateClerk {
  double at() { return HarbourClock::now(); }
};
struct FerryClerk {
  double at() { return HarbourClock::now(); }
};
struct LampClerk {
  double at() { return HarbourClock::now(); }
};
struct NightClerk {
  double at() { return HarbourClock::now(); }
};
