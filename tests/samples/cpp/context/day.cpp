#include "office.h"

class Day {
 public:
  void begin() {
    quaymaster().call();  // finding: coupling.hidden-dependency
    storekeeper()->issue();  // finding: coupling.hidden-dependency
  }
};
