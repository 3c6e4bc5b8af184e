// Shared objects that no slot of their own class tells: those that a DI
// container is told to make once, and those that a class's metaclass or
// decorator keeps.
#pragma once

#include "survey/survey.h"

namespace elmcart {

// One instance by declaration to a container (an annotation on the class, or a
// registration): shared, but handed in. They have no slot and no access points.
std::vector<Entity> containerManaged(const Program& program);

// Classes whose objects all work on one dictionary that a base class keeps.
void addSharingState(const Program& program, std::vector<Entity>& entities);

// Classes whose construction was taken over by what they are marked with: it
// makes the first object, keeps it, and hands it out ever after.
void addKeptByMark(const Program& program, std::vector<Entity>& entities);

// A slot that asks for such an object by making one keeps another name for it: its users are users
// of the object.
void foldOtherNames(std::vector<Entity>& entities);

// In order of place, and of id at one place.
void sortEntities(const Program& program, std::vector<Entity>& entities);

}  // namespace elmcart
