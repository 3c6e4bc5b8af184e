// Members as others see them: the head of a function's declaration, read from the
// original text, without its body and without words that say nothing about calling it.
#pragma once

#include <set>
#include <span>
#include <string>
#include <vector>

#include "rework/source_scan.h"

namespace elmcart {

struct Signature {
  std::string text;    // on one line
  bool whole = true;   // false: the language would work out a part of it from the body
  std::string reason;  // why it cannot be written elsewhere; empty: it can
};

// The functions in the order of the text.
std::vector<FunctionIndex> inTextOrder(const Program& program, const std::set<FunctionIndex>& functions);
// The text without those of the words that it begins with.
std::string withoutLeadingWords(std::string_view text, std::span<const std::string_view> words);

class Signatures {
 public:
  Signatures(const Program& program, SourceScan& scan, const Language& language, TypeIndex type) : p_(program), scan_(scan), language_(language), type_(type) {}

  Signature signatureOf(FunctionIndex member);
  // Where the words begin that a declaration starts with, behind what marks it.
  uint32_t wordsBegin(FunctionIndex member);

  // May code of other packages or files name the class? And the words that say so.
  bool isExported();
  std::string visibility();
  // Package and imports of a file that a text with these members needs in a file of its own.
  std::string headLines(FileIndex file, const std::string& members);

 private:
  Place homeOf(FunctionIndex member) const;
  bool namesInner(std::string_view text) const;  // something that is declared inside the class

  const Program& p_;
  SourceScan& scan_;
  const Language& language_;
  TypeIndex type_;
};

}  // namespace elmcart
