#include <iostream>

#include "pilot.h"

int main() {
  Pilot pilot(6);
  std::cout << pilot.mayEnter(1) << pilot.mayEnter(2) << "\n";
}
