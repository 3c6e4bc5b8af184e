#include "../ledgers/fees.h"

namespace piers {

// Near miss: puts back what it found.
bool entersTwice() {
  int before = PilotFees::fees().total();
  PilotFees::fees().enter(30);  // near: coupling.test-leak
  bool right = PilotFees::fees().total() == 30;
  PilotFees::fees().clear();
  return right && before == 0;
}

}  // namespace piers
