// The offset-preserving pass over a C++ file before it is parsed.
//
// A C++ file read raw trips the grammar wherever a macro or an #if stands in
// the middle of a construct. This pass overwrites with spaces what would
// confuse it, so that every byte offset stays true:
//   - preprocessor lines, after the #includes were noted;
//   - the branches of #if that are not taken when the condition can be told
//     (#if 0, __cplusplus, a platform that is not this one), and all branches
//     but the first where it cannot;
//   - macros that stand for nothing, an attribute or a specifier, as learnt
//     from the #defines of the whole tree.
#pragma once

#include <absl/container/flat_hash_map.h>
#include <absl/container/flat_hash_set.h>

#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "base/text.h"
#include "languages/language.h"
#include "languages/shared/directives.h"

namespace elmcart {

struct MacroLore : Language::TreeLore {
  // Macros to overwrite; true when their argument list goes with them.
  absl::flat_hash_map<std::string, bool, TextHash, std::equal_to<>> blank;
  // Macros whose expansion takes copying away from the class they stand in.
  absl::flat_hash_set<std::string, TextHash, std::equal_to<>> forbidsCopy;
  // Function-like macros of the tree with a body (statement- or declaration-like).
  absl::flat_hash_set<std::string, TextHash, std::equal_to<>> withBody;
  // Macros that stand for a word which matters: "thread_local", "extern", "delete", "new".
  absl::flat_hash_map<std::string, std::string_view, TextHash, std::equal_to<>> specifiers;
  // Macros that stand for a call without arguments: #define gate harbour::Gate::instance()
  struct Accessor {
    std::string called;
    bool writtenAsCall = false;  // gate(), not gate
    friend bool operator==(const Accessor&, const Accessor&) = default;
  };
  absl::flat_hash_map<std::string, Accessor, TextHash, std::equal_to<>> accessors;
  // Macros that stand for what they are given, behind specifiers: "thread_local", or none that matters.
  absl::flat_hash_map<std::string, std::string_view, TextHash, std::equal_to<>> wraps;

  uint64_t fingerprint() const override {
    uint64_t sum = stableHashOfAll(forbidsCopy, 1) + stableHashOfAll(withBody, 2);
    for (const auto& [name, arguments] : blank) sum += stableHash(name, arguments ? 3 : 4) * 0x9e3779b97f4a7c15u;
    for (const auto& [name, accessor] : accessors) sum += (stableHash(name, 5) ^ stableHash(accessor.called, accessor.writtenAsCall)) * 0x9e3779b97f4a7c15u;
    for (const auto& [name, specifier] : specifiers) sum += stableHash(name, specifier.size()) * 0x9e3779b97f4a7c15u;
    for (const auto& [name, specifier] : wraps) sum += stableHash(name, 32 + specifier.size()) * 0x9e3779b97f4a7c15u;
    return sum;
  }
};

std::unique_ptr<Language::TreeLore> learnMacros(std::span<const std::string_view> texts, unsigned jobs = 1);

struct PreparedText {
  std::string text;  // as long as the original
  struct Include {
    std::string path;
    bool system = false;
    Span span;  // of the whole line
  };
  std::vector<Include> includes;
  std::vector<Span> comments;
  std::vector<Span> otherBranches;  // read beside the one that is taken
  // Where a signature says which locks its callers hold, and how that is written: REQUIRES(mutex_).
  struct Held {
    uint32_t at = 0;
    std::string written;
  };
  std::vector<Held> heldByCallers;
  size_t bracketDepth = 0;  // how deep brackets of any kind are nested
};

// `others`: read branches beside the one that is taken, where they hold whole statements. `without`: but not these.
PreparedText prepareCpp(std::string_view text, const MacroLore* lore, bool others = true, std::span<const Span> without = {});

// Those of the branches that hold a piece that was not read.
inline std::vector<Span> unreadIn(const LoweredFile& file, std::span<const Span> branches) {
  std::vector<Span> unread, out;
  for (const Node& node : file.nodes)
    if (node.kind == Kind::Unread) unread.push_back(node.span);
  for (Span branch : branches)
    if (std::any_of(unread.begin(), unread.end(), [&](Span piece) { return piece.begin < branch.end && branch.begin < piece.end; })) out.push_back(branch);
  return out;
}

// Lowers a text with the other branches, or without those of them, or any, when the grammar can then read more of it.
template <typename Lower>  // lower(PreparedText prepared, LoweredFile& into)
void lowerEither(std::string_view text, const MacroLore* lore, LoweredFile& out, Lower lower) {
  PreparedText prepared = prepareCpp(text, lore);
  if (prepared.otherBranches.empty()) return lower(std::move(prepared), out);
  const std::vector<Span> branches = prepared.otherBranches;
  lower(std::move(prepared), out);
  auto retry = [&](PreparedText less) {
    LoweredFile again = sameFile(out);
    lower(std::move(less), again);
    if (again.unreadBytes < out.unreadBytes) out = std::move(again);
  };
  if (out.unreadBytes == 0) return;
  if (std::vector<Span> worst = unreadIn(out, branches); !worst.empty() && worst.size() < branches.size()) retry(prepareCpp(text, lore, true, worst));
  if (out.unreadBytes > 0) retry(prepareCpp(text, lore, false));
}

// Adds the includes to a lowered file, behind the unit's other children; their
// spans tell where they are.
void addIncludes(const PreparedText& prepared, LoweredFile& out);

// Notes which locks the callers of a function hold, where its signature says so.
void addHeldByCallers(const PreparedText& prepared, LoweredFile& out);

// If a comment, string, character or number starts at `at`, the offset behind
// it; else `at`. Strings and characters end at the line's end at the latest.
size_t skipLiteral(std::string_view text, size_t at);

// The offset behind the word that goes on at `at`.
size_t wordEnd(std::string_view text, size_t at);

// The offset behind the ')' that closes the '(' at `open`, or npos.
size_t closingParenthesis(std::string_view text, size_t open);

}  // namespace elmcart
