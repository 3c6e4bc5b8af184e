#include <iostream>

#include "pilot.h"
#include "tides.h"

int main() {
  TidesWrapper tidesWrapper;
  Pilot pilot(6, tidesWrapper);
  std::cout << pilot.mayEnter(1) << pilot.mayEnter(2) << "\n";
}
