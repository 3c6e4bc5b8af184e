// An object that is handed in though it is no shared state.
#pragma once

#include <string>
#include <vector>

#include "assess/analysis.h"

namespace elmcart {

// One of `type`, made by `value` (with {wrap} for its name) where nobody hands it in, in
// the place of what stands at the consumers' places.
struct Given {
  TypeIndex type = kNone;
  std::string value;
  TypeIndex beside = kNone;  // the class that those places name today; the other stands in its file
  std::vector<Consumer> consumers;
};

// The same as the moves read it.
inline Entity entityOf(const Analysis& analysis, const Given& given) {
  Entity entity;
  entity.type = given.type;
  entity.place = analysis.program.types[given.type].definition;
  entity.consumers = given.consumers;
  return entity;
}

}  // namespace elmcart
