// Dart: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language dartLanguage();
std::unique_ptr<Writer> dartWriter(WriterFiles& files, const HandedIn& handed);
const Guarantees& dartGuarantees();

const Handing& dartHanding();
const Mending& dartMending();
const Facing& dartFacing();
const Settling& dartSettling();
const Announcing& dartAnnouncing();

}  // namespace elmcart
