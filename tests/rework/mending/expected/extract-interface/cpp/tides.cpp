#include "tides.h"

namespace office {

void TideTable::raise(int by) { first_ += by; }

const std::string& TideTable::name() const noexcept { return name_; }

}  // namespace office
