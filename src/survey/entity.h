// What the survey finds: pieces of state that live as long as the process or
// thread and that code reaches without being handed them.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "program/program.h"
#include "survey/locks.h"

namespace elmcart {

enum class EntityKind : uint8_t {
  Singleton, SharedInstance, StaticHolder, StaticField, GlobalVariable, FunctionStatic, Registry, Ambient, ThreadLocal, ContainerManaged
};
std::string_view kindText(EntityKind kind);      // "shared-instance"
std::string_view kindMeaning(EntityKind kind);   // one clause for people

// Elsewhere: what is kept was made before and put there, or is never made in what was read.
enum class CreationTime : uint8_t { Elsewhere, Eager, Lazy };
std::string_view creationText(CreationTime time);

// What keeps two threads from creating the instance twice.
enum class GuardSort : uint8_t { None, Language, Lock, DoubleCheck, DoubleCheckUnsound, Once, Atomic, SingleThreaded };
std::string_view guardText(GuardSort guard);

// A way to get at the entity.
struct AccessPoint {
  enum class Sort : uint8_t { Accessor, Slot, Helper };
  Sort sort = Sort::Accessor;
  FunctionIndex function = kNone;
  VariableIndex variable = kNone;
  Place place;
  std::string name;
};

// One site that reaches the entity.
struct Consumer {
  Place place;
  FunctionIndex in = kNone;           // the function around the site, or …
  VariableIndex inInitialiserOf = kNone;
  Access access = Access::Read;
  bool reach = false;                 // the entity itself is fetched here (an access point is used)
  FunctionIndex method = kNone;       // the member function that is called on it
  VariableIndex field = kNone;        // the field of it that is touched
  uint32_t accessPoint = 0;                  // position in the entity's access points; only when `reach`
  VariableIndex alias = kNone;        // reached through this local or field that keeps it
  bool whileLoading = false;          // by its own module or class, while that is loaded
};
std::string_view accessText(const Consumer& consumer);  // "reach", "call", "read", "write"

// One thing that makes a constructor heavy.
struct Weight {
  std::string what;  // "opens a file"
  Place place;
};

// How and where the instance comes into being.
struct CreationFacts {
  CreationTime time = CreationTime::Elsewhere;
  GuardSort guard = GuardSort::None;
  Place place;                        // of the creating expression
  FunctionIndex in = kNone;
  FunctionIndex constructor = kNone;
  TypeIndex made = kNone;             // the class made, maybe derived from the slot's
  Place outerTest, innerTest, lock;   // the parts of a check, lock, check
  bool incompleteDoubleCheck = false; // no second test inside the lock
  std::vector<Weight> weights;
};

struct StateField {
  VariableIndex variable = kNone;
  bool changes = false;               // written after construction
  LockId lock;                        // the lock held at every access, if there is one
};

struct Entity {
  std::string id;          // qualified
  std::string name;        // plain
  std::string shown;       // the shortest that is clear among all: "Hub.shared", "TideTable"
  EntityKind kind = EntityKind::GlobalVariable;
  std::string language;    // id of the language
  std::string typeText;
  TypeIndex type = kNone;
  VariableIndex slot = kNone;
  std::vector<VariableIndex> slots;   // of a static holder: all its fields
  Place place;                        // the declaration
  std::vector<AccessPoint> accessPoints;
  CreationFacts creation;
  int enforced = -1;                  // 1 yes, 0 no, -1 does not apply
  std::vector<std::string> openings;  // why it is not enforced
  std::vector<StateField> state;
  std::vector<Consumer> consumers;
  std::string end;                    // how and when it is destroyed, as a text
  bool neverDestroyed = false;
  bool madeByAsking = false;          // what looks like making one hands out the one that is there
  bool harmless = false;
  std::string harmlessBecause;
  bool stateless = false;             // a singleton in which nothing changes
  Place reset;                        // the slot is given another value here; a test that does so wants to hand it in
  bool filesByKey = false;            // all it does is to keep objects under keys
  // What a user is told it is. An object whose class is a table of instances is a registry, and an instance to checks and moves all the same.
  EntityKind toldKind() const { return filesByKey ? EntityKind::Registry : kind; }
};

}  // namespace elmcart
