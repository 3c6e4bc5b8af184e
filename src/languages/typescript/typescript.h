// TypeScript: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language typescriptLanguage();
Language tsxLanguage();  // TypeScript with markup in it: a grammar of its own

const Handing& typescriptHanding();

const Sound& typescriptSound();
const Facing& typescriptFacing();
const Settling& typescriptSettling();
const Announcing& typescriptAnnouncing();

}  // namespace elmcart
