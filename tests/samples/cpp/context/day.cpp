#include "office.h"

class Day {
 public:
  void begin() {
    quaymaster().call();  // finding: tie.hidden-dependency
    storekeeper()->issue();  // finding: tie.hidden-dependency
  }
};
