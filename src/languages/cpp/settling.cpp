// How classes of C++ keep for themselves what was shared before.
#include "languages/cpp/cpp.h"

namespace elmcart {

const Settling& cppSettling() {
  static constexpr Settling kSettling = {
      .field = "{type} {field} = {value};",
      .shadowedUse = "this->{field}",
      .staticWord = "static",
      .local = "{type} {name}{value};",
  };
  return kSettling;
}

}  // namespace elmcart
