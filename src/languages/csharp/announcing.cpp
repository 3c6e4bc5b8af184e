// How a function of C# announces that the program starts.
#include "languages/csharp/csharp.h"

namespace elmcart {

const Announcing& csharpAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "/// <summary>Tells those who listen, in the order in which they came, that the program starts.</summary>\nprivate sealed class {class}\n{\n\tprivate readonly System.Collections.Generic.List<System.Action> listeners = new System.Collections.Generic.List<System.Action>();\n\n\tpublic void Add(System.Action listener)\n\t{\n\t\tlisteners.Add(listener);\n\t}\n\n\tpublic void Announce()\n\t{\n\t\tforeach (var listener in listeners)\n\t\t{\n\t\t\tlistener();\n\t\t}\n\t}\n}",
      .inClass = true,
      .make = "var {name} = new {class}();", .listen = "{name}.Add(() => { {statement} });", .announce = "{name}.Announce();",
  };
  return kAnnouncing;
}

}  // namespace elmcart
