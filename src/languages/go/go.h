// Go: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language goLanguage();
std::unique_ptr<Writer> goWriter(WriterFiles& files, const HandedIn& handed);
std::unique_ptr<HarnessWriter> goHarness(WriterFiles& files);
const Guarantees& goGuarantees();

const Sound& goSound();
const Mending& goMending();
const Facing& goFacing();
const Settling& goSettling();
const Announcing& goAnnouncing();

}  // namespace elmcart
