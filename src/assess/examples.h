// The samples of examples/, put into the program when it is built: for a check
// and a language one that is reported and one that is sound. Tests assess,
// compile and (where a fault can be made to happen) run each of them.
#pragma once

#include <span>
#include <string_view>

namespace elmcart {

struct Example {
  std::string_view check;     // id
  std::string_view language;  // id
  bool failing = false;       // else the sound twin
  std::string_view file;      // of an example of several files, else ""
  std::string_view text;
};

// Sorted by check, language, failing before sound, file.
std::span<const Example> examples();

}  // namespace elmcart
