// Whoever holds it owns it.
#include <memory>

class Buoy {
 public:
  int swing() { return ++swings_; }

 private:
  int swings_ = 0;
};

std::unique_ptr<Buoy> newBuoy() { return std::make_unique<Buoy>(); }

int lay() {
  std::unique_ptr<Buoy> buoy = newBuoy();
  return buoy->swing();
}
