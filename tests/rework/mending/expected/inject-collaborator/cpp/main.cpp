#include <fstream>
#include <iostream>

#include "desk.h"

int main() {
  std::ofstream("north.txt") << "four";
  std::cout << Desk("north").height() << "\n";
}
