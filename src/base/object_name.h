#pragma once

#include <cctype>
#include <string>
#include <string_view>

namespace elmcart {

// What code calls an object of a class: tideTable or tide_table, httpPool or http_pool.
inline std::string objectName(std::string_view type, bool snake) {
  std::string out;
  bool leading = true;  // in the capitals that a name begins with
  for (size_t i = 0; i < type.size(); ++i) {
    auto capital = [&](size_t at) { return at < type.size() && std::isupper(static_cast<unsigned char>(type[at])) != 0; };
    bool endsRun = i + 1 < type.size() && std::islower(static_cast<unsigned char>(type[i + 1])) != 0;
    leading = leading && capital(i) && (i == 0 || !endsRun);
    if (snake && capital(i) && i > 0 && (!capital(i - 1) || endsRun) && out.back() != '_') out += '_';
    out += snake || leading ? static_cast<char>(std::tolower(static_cast<unsigned char>(type[i]))) : type[i];
  }
  return out;
}

}  // namespace elmcart
