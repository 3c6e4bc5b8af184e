// The row of C++ in the table of languages, and the parts it is made of.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language cppLanguage();
std::unique_ptr<HarnessWriter> cppHarness(WriterFiles& files);
std::unique_ptr<Writer> cppWriter(WriterFiles& files, const HandedIn& handed);

// One file each: guarantees.cpp, owning.cpp, lower.cpp.
const Guarantees& cppGuarantees();
const Owning& cppOwning();
void lowerCpp(std::string_view text, const Language::TreeLore* lore, LoweredFile& out);

const Sound& cppSound();
const Mending& cppMending();
const Facing& cppFacing();
const Settling& cppSettling();
const Announcing& cppAnnouncing();

}  // namespace elmcart
