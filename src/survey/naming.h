// What an entity is called in messages: the shortest name that is clear.
#pragma once

#include <vector>

#include "survey/entity.h"

namespace elmcart {

// Fills Entity::shown: the class's name, or "Class.slot" for a member, with as many of the names
// around it in front as tell it from the others of the list.
void nameShortly(const Program& program, std::vector<Entity>& entities);

}  // namespace elmcart
