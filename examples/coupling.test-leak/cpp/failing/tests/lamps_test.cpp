#include "../lamps.h"

// The next test finds a lamp lit.
bool testLightsOne() {
  LampRoom::room().light(1);
  return LampRoom::room().count() == 1;
}

bool testStartsDark() { return LampRoom::room().count() == 0; }
