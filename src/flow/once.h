// What runs once in the life of the process, or of the object: what a once flag runs, and what stands, under a lock, behind a
// flag that is set there and nowhere taken back: `if (begun) return; begun = true; …`. What only such code calls is run once too.
//
// Sources: ISO C++ [thread.once]; that who comes later and takes the lock finds the work done is [thread.mutex.requirements.mutex],
// JLS 17.4.5. Time: linear in the calls looked at, of which there are few.
#pragma once

#include "program/program.h"

namespace elmcart {

bool runsOnce(const Program& program, Place place, FunctionIndex in);

}  // namespace elmcart
