#include "lamp.h"

bool lightsOne() {
  LampRoom::room().light(1);  // finding: coupling.test-leak
  return LampRoom::room().count() == 1;
}
bool burnsOil() {
  oilLeft = oilLeft - 1;  // finding: coupling.test-leak
  return oilLeft == 9;
}
