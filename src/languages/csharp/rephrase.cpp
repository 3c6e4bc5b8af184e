// What the grammar does not know of C#, in words that it knows.
#include "languages/csharp/rephrase.h"

#include "base/text.h"

namespace elmcart {

Rephrased rephraseCsharp(std::string_view text) {
  Rephrased out(text);
  // *(T*)p: the grammar takes what is read or written through a cast pointer for a product. It is told p.
  for (size_t at = text.find("*("); at != std::string_view::npos; at = text.find("*(", at + 1)) {
    size_t end = at + 2;
    while (end < text.size() && (isWordByte(text[end]) || text[end] == '.')) ++end;
    size_t stars = end;
    while (stars < text.size() && text[stars] == '*') ++stars;
    if (end > at + 2 && stars > end && stars < text.size() && text[stars] == ')') out.blank(at, stars + 1 - at);
  }
  return out;
}

}  // namespace elmcart
