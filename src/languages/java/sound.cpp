// How Java creates an object once, and how a class is closed in it.
#include "languages/java/java.h"

namespace elmcart {

const Sound& javaSound() {
  static constexpr Sound kSound = {
      .declaration = "private static final class Holder {\n\tstatic final {type} INSTANCE = {creation};\n}",
      .once = "Holder.INSTANCE",
      .body = "{return}",
      .why = "a nested class is initialised once, when it is first named (JLS 12.4.2), and costs nothing afterwards",
      .closedConstructor = "private {class}() {\n}",
      .noRevival = "private Object readResolve() {\n\treturn {value};\n}",
      .noSubclass = "final ",
  };
  return kSound;
}

}  // namespace elmcart
