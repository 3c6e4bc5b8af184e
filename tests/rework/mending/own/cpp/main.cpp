#include <iostream>

#include "desk.h"

int main() {
  Desk desk;
  desk.change(3);
  std::cout << strengthOf(desk.lamp()) << desk.isDark();
  desk.change(0);
  std::cout << desk.isDark() << "\n";
}
