#include <iostream>
#include <memory>

#include "buoys.h"

int lay() {
  std::unique_ptr<Buoy> buoy = newBuoy(true);
  buoy->swing();
  int swings = swingsOf(buoy.get());
  return swings;
}

int main() {
  auto first = newBuoy(false);
  std::cout << lay() << newBuoy(true)->swing() << swingsOf(first.get()) << "\n";
}
