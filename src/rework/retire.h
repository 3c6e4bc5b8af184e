// The end of an accessor: where the program's first function alone, or the code of one file, still
// fetches the object, to hand it in, the object is made there, and accessor and slot go.
#pragma once

#include "rework/step.h"

namespace elmcart {

struct RetireStep {
  bool found = false;
  Step step;
};

// `word`: what the object is called there.
RetireStep planRetirement(const Analysis& analysis, size_t entity, const std::string& word);

}  // namespace elmcart
