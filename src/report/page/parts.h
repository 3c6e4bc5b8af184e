// The page's files beside this one, as they are compiled into the program.
#pragma once

#include <string_view>

namespace elmcart::page {

extern const std::string_view kTemplate, kStyle, kScript;

}  // namespace elmcart::page
