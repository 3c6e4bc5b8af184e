// The survey: recognises entities in a linked program by what the code does.
//
// A recogniser looks at one slot (a variable with static lifetime, or a member
// of a long-lived object that functions hand out) and its surroundings; names
// never decide. What is found but can do no harm is kept with the reason why.
#pragma once

#include <vector>

#include "survey/entity.h"
#include "source/ignore.h"
#include "survey/origins.h"

namespace elmcart {

struct Survey {
  std::vector<Entity> entities;  // sorted by file, line, id
  // Classes of which a DI container makes one: shared, but handed in; no slot,
  // no risk by themselves. Sorted like the others.
  std::vector<Entity> managed;
};

// `jobs` threads at most (0: all); the result is the same for any number.
// `tests`: the paths of test code. What production code makes goes before what a test makes.
Survey surveyProgram(const Program& program, const Origins& origins, unsigned jobs = 1, const Globs& tests = {});

// Facts that the checks ask for as well.

// What makes calling `function` heavy: files, network, threads … through calls
// inside the program up to a few levels.
std::vector<Weight> weightsOf(const Program& program, FunctionIndex function);
// The same for creating an object of that class with that constructor (kNone: implicit).
std::vector<Weight> weightsOfCreation(const Program& program, TypeIndex type, FunctionIndex constructor, Place made = {});
// The expression inside of what only takes an address, follows one or casts.
NodeId bareExpression(const LoweredFile& file, NodeId expression);
// What is known of the library type of a variable: of the declared one, and of
// the one that its initialiser makes where it is declared by an interface.
uint32_t variableTraits(const Program& program, VariableIndex variable);
// Is a class of the tree a lock, or a condition that is waited for, by its name or by what it does?
bool isLockClass(const Program& program, TypeIndex type);
// Is the variable taken as a lock, and nothing else done with it but to hand it on? Where every object can be held as a lock
// that says nothing.
bool isTakenAsLock(const Program& program, VariableIndex variable);
// Has the class a member function without a body that derived ones must give?
bool isAbstract(const Program& program, TypeIndex type);
// The class that it is nested in, however deep; itself where it is in none.
TypeIndex outermost(const Program& program, TypeIndex type);
// Can an object of the class be made by anyone?
bool hasOpenConstructor(const Program& program, TypeIndex type, Place* where = nullptr);
// Can only its own package name the class, and so make one?
bool isOfItsPackage(const Program& program, TypeIndex type);
// Does a member function run whenever an object of the class is made, without being called?
bool runsWhenMade(const Program& program, TypeIndex type, FunctionIndex member);
// Does a constructor of the class refuse a second object at run time?
bool refusesSecond(const Program& program, TypeIndex type);
// The class of the object: where the slot is declared by an interface, the one that is made for it.
TypeIndex objectTypeOf(const Program& program, const Entity& entity);
// "Class::function" or the file-level name around a consumer.
std::string whereText(const Program& program, const Consumer& consumer);
// The source-like text of a function for people: "ns::Class::name".
std::string functionText(const Program& program, FunctionIndex function);
// "os::path::join" as the language of the file writes it: "os.path.join".
std::string inNotation(const Program& program, FileIndex file, std::string_view qualified);
// The last parts only, for messages: "Mast::raise", "tideAt"; of a variable "Mast::flags", "tides".
std::string functionName(const Program& program, FunctionIndex function);
std::string variableName(const Program& program, VariableIndex variable);

}  // namespace elmcart
