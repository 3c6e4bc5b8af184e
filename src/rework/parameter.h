// A parameter that may be left out, added to a function as it is written.
#pragma once

#include <string>
#include <vector>

#include "rework/source_scan.h"

namespace elmcart {

// Puts it behind the others, by the language's Handing::functionParameter. An
// answer that is not empty: why it cannot be done.
std::string addOptionalParameter(const Program& p, SourceScan& scan, const Handing& h, FunctionIndex function, const std::string& name, const std::string& type, std::vector<FileEdit>& edits);

// Puts a parameter, written out, behind the others of the list that ends before `close`.
void appendParameter(const Program& p, SourceScan& scan, FileIndex file, uint32_t open, uint32_t close, const std::string& parameter, std::vector<FileEdit>& edits);

// Does the text hold the word, not as part of another?
bool holdsWord(std::string_view text, std::string_view word);

}  // namespace elmcart
