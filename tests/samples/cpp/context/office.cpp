#include "office.h"

struct Office {
  Quaymaster quaymaster;  // entity: shared-instance quaymaster lazy none
  Storekeeper* storekeeper = new Storekeeper;  // entity: shared-instance storekeeper lazy none
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
