// What a move wants to be written, in no language: small values that name
// declarations and places of the program. A writer (writer.h) turns them into edits.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "lowered/tree.h"

namespace elmcart {

// A declaration or place.
struct Spot {
  const LoweredFile* file = nullptr;
  NodeId node = kNoNode;

  bool known() const { return file != nullptr; }
  const Node& operator*() const { return (*file)[node]; }
  const Node* operator->() const { return &(*file)[node]; }
  bool operator==(const Spot&) const = default;
  auto operator<=>(const Spot&) const = default;
};

// A class, with what its declaration alone does not tell.
struct ClassFacts {
  Spot type;
  std::string name;                      // plain
  std::vector<Spot> lineage;             // itself, then its bases that are in the tree
  std::vector<std::string> otherBases;   // bases of any of these that are not in the tree, as they are named
  std::vector<Spot> constructors;        // that make an object of no other: where copies are made by themselves, none that copies
  std::vector<Spot> copies;              // those that do, where they are written out
  std::vector<std::vector<Spot>> calls;  // by constructor: who makes an object by it, or hands on to it
  std::vector<Spot> creations;           // every place where one is made
  bool baseTakesArguments = false;       // a base has constructors, and none that can be called with nothing
  bool hasBaseClass = false;             // it derives from more than interfaces, or from what is not in the tree
  bool isAssigned = false;               // where objects are values: one is assigned to somewhere as a whole
  Spot keptIn;                           // the field that holds the object by now; unknown: none does
  bool existsUnmade = false;             // somewhere it is a value that is there without being made
  std::vector<Spot> methods;             // those that have a body
};

// The object that is handed in, and how code gets at it today.
struct HandedIn {
  std::string word;              // what a parameter or local for it is called, in the manner of its language
  std::string type;              // its class's plain name
  std::string qualified;         // with "::"
  const LoweredFile* home = nullptr;  // where the class is declared
  Spot slot;                     // the variable that holds it; unknown: none is read by its name
  Spot accessor;                 // the function that hands it out; unknown: there is none
  std::string fetched;           // the qualified name of that or of the variable, with "::"
  bool slotHoldsObject = false;  // where objects are values: the variable holds the object itself, not where it is
  std::vector<Spot> accesses;    // every place that fetches it
  bool onlyLooked = false;       // nobody who fetches it changes it
  bool late = false;             // what the slot holds may be replaced: it is read anew at each use
  // An object that is not shared today: how one is made where nobody hands it in, with {wrap} for its class. Each access
  // names the class `beside` it, whose members it has. Empty: the object is fetched.
  std::string made = {}, beside = {};
};

enum class ChangeKind : uint8_t {
  TakeInConstructor,  // the constructor takes the object as its last parameter; for those who call it as before it is fetched
  TakeInFunction,     // a function takes it so, as a constant where nothing in it changes the object
  KeepInField,        // the class keeps what its constructors take
  OpenField,          // what the class keeps may be read in those that derive from it
  MoveInitialiser,    // a field gets its first value in the constructors that take the object, behind that
  Read,               // an access reads the object from where it was handed in
  HandOn,             // a creation, or a call of another constructor or of such a function, hands the object on
  HandToBase,         // a constructor hands its parameter on to its base's, which takes one too
  DropDefault,        // a constructor or function that takes it must be given it
};

// Where the object is read from.
enum class From : uint8_t { Parameter, Field, Fetched };

inline constexpr uint32_t kLast = UINT32_MAX;

struct Change {
  ChangeKind kind = ChangeKind::Read;
  Spot at;            // the constructor or function (not known: the class has no constructor), class, access or call;
                      // of OpenField: the field
  const ClassFacts* of = nullptr;  // the class in which it is made; null: none
  From from = From::Parameter;
  Spot in = {};        // of Read and HandOn: the function around; not known: a field's first value
  uint32_t position = kLast;  // of HandOn and HandToBase: which parameter of what is called it is; kLast: the last
  Spot callee = {};      // of HandOn: the constructor or function that is called today; unknown: it is not known
  bool passesOnly = false;  // of TakeInConstructor and KeepInField: nothing is read there, it is only handed on
  bool looksOnly = false;   // of Read: nothing is asked there that changes the object
};

}  // namespace elmcart
