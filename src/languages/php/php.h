// PHP: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language phpLanguage();
const Guarantees& phpGuarantees();

const Handing& phpHanding();

const Sound& phpSound();
const Mending& phpMending();
const Facing& phpFacing();
const Settling& phpSettling();
const Announcing& phpAnnouncing();

}  // namespace elmcart
