// C#: what the table of languages takes from this folder.
#pragma once

#include "languages/language.h"

namespace elmcart {

Language csharpLanguage();
std::unique_ptr<Writer> csharpWriter(WriterFiles& files, const HandedIn& handed);
std::unique_ptr<HarnessWriter> csharpHarness(WriterFiles& files);
const Guarantees& csharpGuarantees();

const Handing& csharpHanding();

const Sound& csharpSound();
const Mending& csharpMending();
const Facing& csharpFacing();
const Settling& csharpSettling();
const Announcing& csharpAnnouncing();

}  // namespace elmcart
