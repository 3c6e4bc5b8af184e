// How Python creates an object once, and how a class is closed in it.
#include "languages/python/python.h"

namespace elmcart {

const Sound& pythonSound() {
  static constexpr Sound kSound = {
      .wrapped = "with {lock}:",
      .lock = "_making = threading.Lock()",
      .import = "import threading",
      .why = "a lock around the test and the creation: whoever comes second waits and finds the object",
  };
  return kSound;
}

}  // namespace elmcart
