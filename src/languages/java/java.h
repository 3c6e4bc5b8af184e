// Java: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language javaLanguage();
const Guarantees& javaGuarantees();

const Handing& javaHanding();

const Sound& javaSound();
const Mending& javaMending();
const Facing& javaFacing();
const Settling& javaSettling();
const Announcing& javaAnnouncing();

}  // namespace elmcart
