// How classes of Python take what they need.
#include "languages/python/python.h"

namespace elmcart {

const Handing& pythonHanding() {
  static constexpr Handing kHanding = {
      .snake = true, .fieldPrefix = "_",
      .parameter = "{name}=None",
      .assign = "self.{field} = {value} if {name} is None else {name}",
      .passedAssign = "self.{field} = {name}",
      .closedParameter = "{name}",
      .closedAssign = "self.{field} = {name}",
      .inMethod = "self.{field}", .inConstructor = "self.{field}",
      .constructor = "def __init__(self, *, {name}=None):\n\t{assign}",
      .baseConstructor = "def __init__(self, *args, {name}=None, **kwargs):\n\tsuper().__init__(*args, **kwargs)\n\t{assign}",
      .argument = "{name}={value}",
      .baseCall = "super()",
      .functionParameter = "{name}=None", .functionUse = "({value} if {name} is None else {name})",
      .keywordOnly = true,
  };
  return kHanding;
}

}  // namespace elmcart
