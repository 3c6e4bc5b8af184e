#include <iostream>

#include "pilot.h"
#include "tides.h"

int main() {
  office::TideTable tides(4);
  tides.raise();
  office::Pilot pilot(tides);
  std::cout << pilot.mayEnter(3, 1) << office::deepEnough(&tides, 9) << "\n";
}
