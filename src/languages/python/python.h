// Python: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language pythonLanguage();
std::unique_ptr<Writer> pythonWriter(WriterFiles& files, const HandedIn& handed);
std::unique_ptr<HarnessWriter> pythonHarness(WriterFiles& files);
const Guarantees& pythonGuarantees();

const Handing& pythonHanding();

const Sound& pythonSound();
const Mending& pythonMending();
const Facing& pythonFacing();
const Settling& pythonSettling();
const Announcing& pythonAnnouncing();

}  // namespace elmcart
