// How a list of items with commas between them is laid out: one a line, or as many as fit.
#pragma once

#include <span>
#include <string>
#include <string_view>

#include "base/span.h"

namespace elmcart {

// What stands in front of one more item at the end of a list, the comma with it: as between the items, where each stands
// on a line of its own; else a blank, or a line end with indentation where the line would be too long.
// `length`: of the new item, in bytes. A line is full where the file's longest line ends, between 80 and 120 bytes; at 100
// where the file has short lines only. What is longer already is not broken.
std::string separatorBehind(std::string_view source, std::span<const Span> items, size_t length);

// The same between a new first item and the one that is the first today.
std::string separatorInFront(std::string_view source, std::span<const Span> items, size_t length);

}  // namespace elmcart
