#include "../lamps.h"

// Put back when the test is done.
bool testLightsOne() {
  LampRoom::room().light(1);
  bool one = LampRoom::room().count() == 1;
  LampRoom::room().snuff();
  return one;
}
