// How a function of Go announces that the program starts.
#include "languages/go/go.h"

namespace elmcart {

const Announcing& goAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "// {class} tells those who listen, in the order in which they came, that the program starts.\ntype {class} struct {\n\tlisteners []func()\n}\n\nfunc (s *{class}) add(listener func()) {\n\ts.listeners = append(s.listeners, listener)\n}\n\nfunc (s *{class}) announce() {\n\tfor _, listener := range s.listeners {\n\t\tlistener()\n\t}\n}",
      .make = "var {name} {class}", .listen = "{name}.add(func() { {statement} })", .announce = "{name}.announce()",
  };
  return kAnnouncing;
}

}  // namespace elmcart
