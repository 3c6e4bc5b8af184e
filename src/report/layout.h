// What the texts for a terminal are put together from: cut and wrapped lines, tables, paint.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "program/program.h"
#include "report/text.h"

namespace elmcart {

// How many columns a UTF-8 text takes: every text of ours is made of single-width characters.
size_t columns(std::string_view text);
// To that many columns: the end of a name or path stays, for it tells more than its beginning.
std::string cut(const std::string& text, size_t width);
// The beginning stays.
std::string cutEnd(const std::string& text, size_t width);

// In a colour or weight by its number (ECMA-48, SGR), where the style has colour.
std::string painted(const TextStyle& style, const char* code, std::string_view text);
std::string strong(const TextStyle& style, std::string_view text);
std::string faint(const TextStyle& style, std::string_view text);
std::string riskPaint(const TextStyle& style, int risk, std::string_view text);

std::string at(const Program& program, Place place);  // "path:line"

}  // namespace elmcart
