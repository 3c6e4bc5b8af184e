// Which build of the program this is: what one keeps in the cache, another
// must not take for its own. Made by cmake/fingerprint.cmake.
#pragma once

#include <string_view>

namespace elmcart {

std::string_view buildFingerprint();

}  // namespace elmcart
