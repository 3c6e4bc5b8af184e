// Objective-C: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language objcLanguage();
std::unique_ptr<Writer> objcWriter(WriterFiles& files, const HandedIn& handed);
const Guarantees& objcGuarantees();
const Mending& objcMending();
const Facing& objcFacing();
const Sound& objcSound();
const Settling& objcSettling();
const Announcing& objcAnnouncing();

}  // namespace elmcart
