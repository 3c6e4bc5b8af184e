// Where a language has grown beyond its grammar, the text for the grammar is
// put in words that it knows, of the same length: spans and names stay those
// of the original. What becomes of each place is said where it is done.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace elmcart {

// Which bytes of a text are code: neither in a comment (// and /* */, which may
// be nested) nor in a string ("…", """…""" and, where told, '…').
std::vector<bool> codeBytes(std::string_view text, bool singleQuotes);

// A copy of a text that is changed in some places, made when the first is.
class Rephrased {
 public:
  explicit Rephrased(std::string_view original) : original_(original) {}
  void blank(size_t at, size_t count) {
    for (size_t i = at; i < at + count; ++i) put(i, ' ');
  }
  void put(size_t at, char c) {
    if (copy_.empty()) copy_ = original_;
    copy_[at] = c;
  }
  std::string_view text() const { return copy_.empty() ? original_ : copy_; }

 private:
  std::string_view original_;
  std::string copy_;
};

}  // namespace elmcart
