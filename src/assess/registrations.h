// Who puts itself into a list that lives longer, where, and what takes it out.
#pragma once

#include <set>
#include <vector>

#include "program/program.h"

namespace elmcart {

struct Subject;

// An object puts itself (or a function of its own) into a collection.
struct Registration {
  Place place;                          // the call by which it does so
  FunctionIndex in = kNone;
  TypeIndex subscriber = kNone;
  VariableIndex collection = kNone;
  Place kept;                           // where it is stored
  FunctionIndex by = kNone;             // the subject's function that stores it; kNone: stored directly
  bool asFunction = false;              // a function that uses the object is stored, not the object
  Place given{};                        // the argument: the object, or the function
  bool resultUsed = false;              // something comes back from registering: a token, a way to undo it
  size_t entity = SIZE_MAX;             // whose collection it is
  bool global = false;                  // registered with an object that is reached globally
};

// All of them outside of tests, in the order of the text.
std::vector<Registration> registrationsIn(const Subject& s);

// A function puts the address of an object of its own into a collection that lives longer.
struct LocalRegistration {
  Place place;                          // the call by which it does so
  FunctionIndex in = kNone;
  VariableIndex local = kNone;          // the object
  VariableIndex collection = kNone;
  Place kept;                           // where it is stored
  Place block;                          // what the object ends with
  Place usedAfter;                      // the collection's owner is used here, after that; unknown: by whoever reaches it
};

// Those outside of tests, of languages where objects are freed by hand, that nothing takes out again.
std::vector<LocalRegistration> localRegistrationsIn(const Subject& s);

// Does the function (or what it calls) take something out of the collection?
bool removesFrom(const Program& p, FunctionIndex function, VariableIndex collection, std::set<FunctionIndex>& seen, int depth = 0);
// Does the method, or one of its own class that it calls, give the object itself to somebody else?
bool handsItselfOn(const Program& p, FunctionIndex method, int depth = 0);
// The class's destructor with a body, or kNone.
FunctionIndex destructorOf(const Program& p, TypeIndex type);
// That, or the method by which its objects are told their end; kNone: neither.
FunctionIndex endOf(const Program& p, TypeIndex type);
// Is the object taken out of the collection when it ends, by the class, a base or a member?
bool endRemoves(const Program& p, TypeIndex type, VariableIndex collection);
// The function that takes something out of the collection for whoever calls it, or kNone.
FunctionIndex removerOf(const Program& p, VariableIndex collection);
// Does the object stay in the collection when it ends, or for ever?
bool dangles(const Subject& s, const Registration& r);
// Who calls all that are in a collection, and what is called on them.
struct Notification {
  FunctionIndex by = kNone;       // it walks over the collection; kNone: nobody does
  FunctionIndex called = kNone;   // not known where the class of what is listed is not
  std::string_view name;          // of what is called, as far as it has one
};
Notification notificationOf(const Program& p, VariableIndex collection);
// Does every object of the class that the program makes live as long as the process?
bool onlyLivesForever(const Program& p, TypeIndex type);

}  // namespace elmcart
