#include "office.h"

struct Office {
  Quaymaster quaymaster;
  Storekeeper* storekeeper = new Storekeeper;
};
static Office* office = nullptr;  // entity: global-variable office lazy none

static void ensure() {
  if (!office) office = new Office;  // finding: thread.unguarded-creation
}
Quaymaster& quaymaster() {
  ensure();
  return office->quaymaster;
}
Storekeeper* storekeeper() {
  ensure();
  return office->storekeeper;
}
