// The end of an accessor: where the program's first function alone, or the code of one file, still
// fetches the object, to hand it in, the object is made there, and accessor and slot go.
#pragma once

#include <functional>
#include <span>
#include <string>
#include <vector>

#include "rework/step.h"

namespace elmcart {

struct RetireStep {
  bool found = false;
  Step step;
};

// The object where it is made then.
struct LocalObject {
  std::string name;                           // what the variable for it is called
  std::function<std::string(Place)> typeAt;   // its class's name at a place
  // What a class calls a field for it.
  std::function<std::string(TypeIndex)> fieldOf;
  // Writes accesses as those of what goes by the name; empty: that stands for each.
  std::function<void(std::span<const Place>, const std::string& name, std::vector<FileEdit>&)> read;
};

RetireStep planRetirement(const Analysis& analysis, size_t entity, const LocalObject& local);

}  // namespace elmcart
