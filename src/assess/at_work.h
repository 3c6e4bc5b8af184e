// Which functions run while the program does its work, and which may only be called by who puts it together.
//
// At work are: what main runs, what threads run, what is handed on as a function, members of a class whose base is in
// a library, what runs while files are loaded; and what these call, by way of a base class too. Left are functions that
// nobody in the tree calls, and what only they call: those who use a library may call them before there are threads.
#pragma once

#include <vector>

#include "flow/threads.h"

namespace elmcart {

// By function. Linear in the number of calls and nodes; `testFile`: what tests call does not count.
std::vector<bool> functionsAtWork(const Program& program, const Threads& threads, const std::vector<bool>& testFile);

}  // namespace elmcart
