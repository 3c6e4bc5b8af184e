// How Swift creates an object once, and how a class is closed in it.
#include "languages/swift/swift.h"

namespace elmcart {

const Sound& swiftSound() {
  static constexpr Sound kSound = {
      .declaration = "private static let {slot} = {creation}",
      .once = "{slot}",
      .body = "{return}",
      .unwrap = "!",
      .why = "a static constant is created once, when it is first asked for, under a guard of the language's own (Properties, Type Properties)",
      .closedConstructor = "private init() {}",
      .noSubclass = "final ",
  };
  return kSound;
}

}  // namespace elmcart
