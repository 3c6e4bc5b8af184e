// Conditional compilation: which branches are read.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "lowered/tree.h"

namespace elmcart {

// Tells, at a place of a text with braces, whether it is in the body of a function. Reads on from
// the place that was asked for last, in a text whose directives are blanked.
class BodyScope {
 public:
  // Is the last `{` before `at` (with no `}` of its own) that of a function, or inside one?
  bool holds(std::string_view text, size_t at);
  // The last character before `at` that is code; '{' at the beginning.
  char last() const { return last_; }

 private:
  std::vector<bool> open_;  // by brace: a body?
  std::string head_;        // since the last `;`, `{` or `}`
  size_t at_ = 0;
  char last_ = '{';
};

// May a branch be read beside the one that is taken? It must hold whole statements: brackets that
// balance, an end where a statement ends, no beginning in the middle of one. `semicolons`: does the
// language end each statement with one?
bool isWholeStatements(std::string_view branch, bool semicolons);
// The same, and does it begin where a statement may, in a function's body? `line`: where its directive begins; `from`: where it does.
bool mayBeReadToo(BodyScope& scope, std::string_view blanked, std::string_view text, size_t line, size_t from, bool semicolons);

// A text without its conditional directives.
struct WithoutDirectives {
  std::string text;          // as long as the original
  std::vector<Span> others;  // branches that are read beside the one that is taken, in order
};

// Overwrites with spaces the lines of #if, #else and the like, and what stands
// between an #else (#elseif, #elif) and its #endif: of several branches the
// first is read, for which one is built is not known. With `others`, those of the
// rest are read too that stand in a function's body and hold whole statements.
WithoutDirectives withoutDirectives(std::string_view text, bool others, bool semicolons);

// Where the branch that begins at `at` ends: at the directive that parts it from the next.
size_t branchEnd(std::string_view text, size_t at);

// A file that is not lowered yet, of the same path and language.
LoweredFile sameFile(const LoweredFile& file);

// Lowers a text with the other branches, or without them when the grammar can then read more of it.
template <typename Lower>  // lower(std::string& prepared, LoweredFile& into)
void lowerBranches(std::string_view text, bool semicolons, LoweredFile& out, Lower lower) {
  WithoutDirectives prepared = withoutDirectives(text, true, semicolons);
  if (prepared.others.empty()) return lower(prepared.text, out);
  LoweredFile plain = sameFile(out);
  out.otherBranches = prepared.others;
  lower(prepared.text, out);
  if (out.unreadBytes == 0) return;
  WithoutDirectives first = withoutDirectives(text, false, semicolons);
  lower(first.text, plain);
  if (plain.unreadBytes < out.unreadBytes) out = std::move(plain);
}

// Overwrites each `words` in the text with spaces: for newer words of a language
// that its grammar does not know and that change nothing here.
void blankWords(std::string& text, std::string_view words);

}  // namespace elmcart
