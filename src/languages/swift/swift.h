// Swift: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language swiftLanguage();
std::unique_ptr<Writer> swiftWriter(WriterFiles& files, const HandedIn& handed);
const Guarantees& swiftGuarantees();

const Handing& swiftHanding();

const Sound& swiftSound();
const Mending& swiftMending();
const Facing& swiftFacing();
const Settling& swiftSettling();
const Announcing& swiftAnnouncing();

}  // namespace elmcart
