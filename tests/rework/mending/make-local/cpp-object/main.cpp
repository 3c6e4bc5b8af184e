#include <iostream>

#include "desk.h"

int main() {
  Desk desk;
  std::cout << desk.enter(1) << desk.enter(2) << "\n";
}
