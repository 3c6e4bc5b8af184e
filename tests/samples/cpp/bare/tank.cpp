#include "TankLevel"

TankLevel& TankLevel::get() {
  static TankLevel level;
  return level;
}
