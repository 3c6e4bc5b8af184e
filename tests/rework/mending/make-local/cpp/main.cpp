#include <iostream>

#include "desk.h"

int main() {
  Desk desk;
  desk.serve(3);
  desk.serve(1);
  std::cout << desk.served() << "\n";
}
