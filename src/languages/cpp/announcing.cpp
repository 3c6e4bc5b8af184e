// How a function of C++ announces that the program starts.
#include "languages/cpp/cpp.h"

namespace elmcart {

const Announcing& cppAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "// Tells those who listen, in the order in which they came, that the program starts.\nclass {class} {\n public:\n\tvoid add(std::function<void()> listener) { listeners_.push_back(std::move(listener)); }\n\tvoid announce() const {\n\t\tfor (const auto& listener : listeners_) listener();\n\t}\n\n private:\n\tstd::vector<std::function<void()>> listeners_;\n};",
      .make = "{class} {name};", .listen = "{name}.add([&] { {statement} });", .announce = "{name}.announce();",
      .import = "#include <functional>", .otherImport = "#include <vector>",
  };
  return kAnnouncing;
}

}  // namespace elmcart
