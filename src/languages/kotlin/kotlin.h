// Kotlin: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language kotlinLanguage();
std::unique_ptr<Writer> kotlinWriter(WriterFiles& files, const HandedIn& handed);
const Guarantees& kotlinGuarantees();

const Handing& kotlinHanding();
const Mending& kotlinMending();
const Facing& kotlinFacing();
const Sound& kotlinSound();
const Settling& kotlinSettling();
const Announcing& kotlinAnnouncing();

}  // namespace elmcart
