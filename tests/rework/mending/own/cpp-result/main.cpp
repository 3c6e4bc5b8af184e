#include <iostream>

#include "buoys.h"

int lay() {
  Buoy* buoy = newBuoy(true);
  buoy->swing();
  int swings = swingsOf(buoy);
  delete buoy;
  return swings;
}

int main() {
  auto* first = newBuoy(false);
  std::cout << lay() << newBuoy(true)->swing() << swingsOf(first) << "\n";
  delete first;
}
