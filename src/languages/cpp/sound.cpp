// How C++ creates an object once, and how a class is closed in it.
#include "languages/cpp/cpp.h"

namespace elmcart {

const Sound& cppSound() {
  static constexpr Sound kSound = {
      .once = "instance",
      .body = "static const auto instance = {creation};\n{return}",
      .why = "a local static is created once, under a guard of the language's own ([stmt.dcl]/3), and costs one test afterwards",
      .noCopies = "{class}(const {class}&) = delete;\n{class}& operator=(const {class}&) = delete;",
      .noSubclass = "final",
  };
  return kSound;
}

}  // namespace elmcart
