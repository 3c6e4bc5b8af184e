// PHP: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language phpLanguage();
std::unique_ptr<Writer> phpWriter(WriterFiles& files, const HandedIn& handed);
std::unique_ptr<HarnessWriter> phpHarness(WriterFiles& files);
const Guarantees& phpGuarantees();

const Handing& phpHanding();

const Sound& phpSound();
const Mending& phpMending();
const Facing& phpFacing();
const Settling& phpSettling();
const Announcing& phpAnnouncing();

}  // namespace elmcart
