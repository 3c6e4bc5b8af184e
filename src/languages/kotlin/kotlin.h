// Kotlin: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language kotlinLanguage();
const Guarantees& kotlinGuarantees();

const Handing& kotlinHanding();
const Mending& kotlinMending();
const Facing& kotlinFacing();
const Sound& kotlinSound();
const Settling& kotlinSettling();
const Announcing& kotlinAnnouncing();

}  // namespace elmcart
