// Which classes make for themselves what they work with.
#pragma once

#include <string>
#include <vector>

#include "program/program.h"

namespace elmcart {

struct Subject;

// A class makes an object of another, one that does what tests want to keep out,
// and keeps it in a field; or one of its methods makes one whose making does so.
struct Collaborator {
  TypeIndex owner = kNone;       // who makes it
  TypeIndex type = kNone;        // what is made
  VariableIndex field = kNone;   // where it is kept; kNone: made in a method, for that call
  FunctionIndex in = kNone;      // the constructor that makes it; kNone: the field's own initialiser; where there is no field, the method
  Place creation;
  Place why;                     // the file, thread, … that it touches
  std::string what;              // the same in words
};

// All outside of tests, by what is made and then in the order of the text.
std::vector<Collaborator> fixedCollaborators(const Subject& s);

}  // namespace elmcart
