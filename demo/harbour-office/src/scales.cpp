#include "scales.h"

namespace office {

int nextTicket = 0;

int takeTicket() { return ++nextTicket; }

int nextBuoy() {
  static int number = 100;
  return ++number;
}

int Tariff::centsATon_ = 250;

int Launch::launched_ = 0;

CargoScale& CargoScale::scale() {
  static std::mutex mutex;
  static std::unique_ptr<CargoScale> slot;
  std::lock_guard<std::mutex> hold(mutex);
  if (!slot) slot.reset(new CargoScale);
  return *slot;
}

CargoScale::CargoScale() : tape_(std::fopen("/dev/null", "w")) {}

int weighAll(const int* kilos, int count) {
  int total = 0;
  for (int i = 0; i < count; ++i) total += CargoScale::scale().weigh(kilos[i]);
  return total;
}

}  // namespace office
