#include "lamp.h"

// Near miss: put back when the test is done.
bool lightsTwo() {
  LampRoom::room().light(1);
  LampRoom::room().light(2);
  bool two = LampRoom::room().count() == 2;
  LampRoom::room().snuff();
  oilLeft = 10;
  return two;
}
// Near miss: only looks.
bool isDark() { return LampRoom::room().count() == 0; }
