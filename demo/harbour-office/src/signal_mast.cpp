#include "signal_mast.h"

namespace office {

int SignalMast::hoist(const std::string& signal) {
  for (SignalKeeper* keeper : keepers_) keeper->raised(signal);
  return static_cast<int>(keepers_.size());
}

}  // namespace office
