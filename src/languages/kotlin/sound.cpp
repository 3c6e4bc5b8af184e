// How Kotlin creates an object once.
#include "languages/kotlin/kotlin.h"

namespace elmcart {

const Sound& kotlinSound() {
  static constexpr Sound kSound = {
      .declaration = "private val {slot} by lazy { {creation} }",
      .once = "{slot}",
      .body = "{return}",
      .unwrap = "!!",
      .why = "a lazy value is created once, when it is first asked for, under a lock of its own (kotlin.lazy)",
  };
  return kSound;
}

}  // namespace elmcart
