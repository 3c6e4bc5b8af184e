// Swift: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language swiftLanguage();
const Guarantees& swiftGuarantees();

const Handing& swiftHanding();

const Sound& swiftSound();
const Mending& swiftMending();
const Facing& swiftFacing();
const Settling& swiftSettling();
const Announcing& swiftAnnouncing();

}  // namespace elmcart
