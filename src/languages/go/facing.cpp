// How an interface of Go is written and kept.
#include "languages/go/go.h"

namespace elmcart {

const Facing& goFacing() {
  static constexpr Facing kFacing = {
      .face = "type {face} interface {\n{members}}",
      .member = "\t{signature}\n",
      .was = "*{class}",
      .nullIsAnother = true,
      .objectInFront = true,
      .double_ = "type {class}Double struct{}\n\n{members}",
      .doubleMember = "func ({class}Double) {signature} {\n\tpanic(\"{member} is not expected here\")\n}\n",
  };
  return kFacing;
}

}  // namespace elmcart
