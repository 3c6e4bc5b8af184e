// Comments taken out of a text before its grammar sees it: often they are half of
// its bytes, and a parser takes as long for them as for code.
//
// This is only for languages whose strings hold no code, so that one look from the
// first byte on tells comments, strings and code apart (the Java Language
// Specification 3.7 and 3.10, the Go specification's Comments and String literals).
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "lowered/tree.h"

namespace elmcart {

// A string or character: between two of the same marks.
struct QuoteForm {
  std::string_view mark;
  bool escapes = true;     // a backslash takes its meaning from the next byte
  bool overLines = false;  // or else it ends with its line at the latest
};

// Comments are // to the line's end and /* to the next */.
struct CommentForm {
  std::span<const QuoteForm> quotes;  // longer marks before those they begin with
};

// A text without its comments. A blank stands for each, or a line's end for one
// over several lines. One that never ends is left to the grammar.
class WithoutComments {
 public:
  WithoutComments(std::string_view text, const CommentForm& form);

  std::string_view text() const { return cuts_.empty() ? whole_ : std::string_view(text_); }
  // What was lowered from text(), told as of the whole text; the comments are put in.
  void giveBack(LoweredFile& file);

 private:
  struct Cut {
    uint32_t at;       // in text(): where the blank stands
    uint32_t removed;  // bytes taken out up to there
  };
  // Cuts are looked for from the last one on that stands before a block of bytes.
  static constexpr uint32_t kBlock = 64;
  // Where the byte at that offset of text() stands in the whole text, or the end.
  uint32_t whole(uint32_t offset) const;
  void cut(Span comment, size_t& copied);

  std::string_view whole_;
  std::string text_;
  std::vector<Cut> cuts_;
  std::vector<uint32_t> before_;  // by block: the number of cuts in front of it
  std::vector<Span> comments_;
};

}  // namespace elmcart
