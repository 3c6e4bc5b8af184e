// Lowering of Objective-C: learning from a whole tree, and one file.
#pragma once

#include "languages/objc/objc.h"

namespace elmcart {

std::unique_ptr<Language::TreeLore> learnObjc(std::span<const std::string_view> texts, unsigned jobs);
void lowerObjc(std::string_view text, const Language::TreeLore* lore, LoweredFile& out);
void parseObjcOnly(std::string_view text);

}  // namespace elmcart
