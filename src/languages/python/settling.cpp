// How classes of Python keep for themselves what was shared before.
#include "languages/python/python.h"

namespace elmcart {

const Settling& pythonSettling() {
  static constexpr Settling kSettling = {
      .field = "",
      .inConstructor = "self.{field} = {value}",
      .newConstructor = "def __init__(self):\n\t{assign}",
      .use = "self.{field}",
      .local = "{name} = {value}",
  };
  return kSettling;
}

}  // namespace elmcart
