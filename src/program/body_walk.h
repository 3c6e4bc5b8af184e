// Walks function bodies and initialisers: what each name means, what type each
// expression has, which function each call reaches, what is created where.
#pragma once

#include "program/batch.h"

namespace elmcart {

// A function: its body, the initialisers of its fields and the defaults of its
// parameters. Names are looked up from `scope`.
void walkFunction(Linker& linker, Batch& batch, FunctionIndex function, ScopeIndex scope);

// A value given to a variable or, of a function that is only declared there, to a
// parameter (one of the two is kNone). Returns its type.
TypeUseId walkInitialiser(Linker& linker, Batch& batch, Place value, ScopeIndex scope, FunctionIndex in, VariableIndex variable);

}  // namespace elmcart
