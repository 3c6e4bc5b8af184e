#include "scale.h"

#include <thread>

CargoScale& CargoScale::scale() {
  static CargoScale instance;
  return instance;
}

void CargoScale::weigh(const Crate& crate) {
  crates_.push_back(crate);
  note();
}

void CargoScale::weighTwice(const Crate& crate) {
  crates_.clear();
  weigh(crate);
  weigh(crate);
}

void CargoScale::note() { loads_ += 1; }

void unload() {
  std::thread crane([] { CargoScale::scale().weigh({3}); });
  CargoScale::scale().weighTwice({4});
  crane.join();
}

int main() {
  unload();
  return CargoScale::scale().loads() == 3 ? 0 : 1;
}
