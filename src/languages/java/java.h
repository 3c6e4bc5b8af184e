// Java: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language javaLanguage();
std::unique_ptr<Writer> javaWriter(WriterFiles& files, const HandedIn& handed);
std::unique_ptr<HarnessWriter> javaHarness(WriterFiles& files);
const Guarantees& javaGuarantees();

const Handing& javaHanding();

const Sound& javaSound();
const Mending& javaMending();
const Facing& javaFacing();
const Settling& javaSettling();
const Announcing& javaAnnouncing();

}  // namespace elmcart
