// How code gets at a shared object: what stands for it in the text.
#pragma once

#include <set>
#include <vector>

#include "rework/source_scan.h"
#include "source/ignore.h"
#include "survey/entity.h"

namespace elmcart {

// Does calling the function give the shared object?
bool givesShared(const Program& p, const Entity& e, FunctionIndex f);

// What stands for the object at the place of a consumer: its accessor's call, its
// slot's name, or its own name where the language makes the object itself. Not
// known where it is reached through another object, or by a call with arguments.
Place accessOf(const Program& p, const Entity& e, Place place);

// The classes of which objects are made, in however many steps, by objects of these; what tests make does not count.
std::set<TypeIndex> madeBelow(const Program& p, const Globs& tests, std::vector<TypeIndex> makers);

// The constructors of a class, in the order of its members.
std::vector<FunctionIndex> constructorsOf(const Program& p, TypeIndex type);

// The function around a place; kNone: there is none.
FunctionIndex functionAround(const Program& p, Place place);

// The class whose object does something in `in`; of a class without a name the one around it. kNone: no object does.
TypeIndex unitOf(const Program& p, FunctionIndex in);

// The type that an accessor says it hands out, written behind its parameters, as the
// file of an access of it writes it; empty: it cannot be named there.
std::string typeHandedOut(const Program& p, SourceScan& scan, Place access, FunctionIndex accessPoint);

}  // namespace elmcart
