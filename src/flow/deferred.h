// Code that is written at one place and run at another: the body of a lambda.
#pragma once

#include "program/program.h"

namespace elmcart {

// May the lambda be run while the code around it runs? It is called in place, or handed to a function that calls its
// parameter, as far as that can be followed; to one that walks over a collection; to one that is not known. What is
// only kept (in a field, a table, a variable that nobody calls, by a function that only stores it) runs later, if at all.
bool mayRunAtOnce(const Program& program, Place lambda);

// Does the place stand in a lambda that is only kept?
bool runsLater(const Program& program, Place place);

// Is it put away in the tree itself: in a field, a collection, by a function of the tree that does not call it? What a
// library is given is not.
bool isPutAsideInTree(const Program& program, Place lambda);

// Is of what stands there only the address taken, to be kept: nobody looks at the object by then?
bool isOnlyAddressed(const Program& program, Place place);

}  // namespace elmcart
