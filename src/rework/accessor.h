// Doing without an accessor: making its object elsewhere, and taking it away with
// its slot when nobody asks for it any more. An answer that is not empty says why
// that cannot be written.
#pragma once

#include "rework/source_scan.h"
#include "survey/entity.h"

namespace elmcart {

// What makes such an object in another class: `new TideTable()`; for languages whose
// objects are values what stands behind the name of a variable, "" or "{3}".
std::string creationElsewhere(const Program& p, SourceScan& scan, const Entity& e, std::string& creation);

// Lets code of that file make one.
std::string openConstructor(const Program& p, SourceScan& scan, const Entity& e, FileIndex from, std::vector<FileEdit>& edits);

// Takes the accessor, the slot, and a lock that served them alone. `replaced`: the accesses
// that are gone by then.
std::string removeAccessor(const Program& p, SourceScan& scan, const Entity& e, std::vector<FileEdit>& edits, const std::vector<Place>& replaced = {});

}  // namespace elmcart
