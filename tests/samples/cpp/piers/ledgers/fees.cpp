#include "fees.h"

namespace piers {

PilotFees& PilotFees::fees() {
  static PilotFees instance;
  return instance;
}

// Near miss: a layer may reach its own.
int PilotFees::twice() const { return total_ + fees().total(); }  // near: coupling.layer-breach

}  // namespace piers
