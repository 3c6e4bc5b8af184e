// All lowered files of a tree linked together: declarations, scopes, types,
// resolved names, and who uses what.
//
// Everything is held in plain vectors and named by index; kNone is no index.
// The program is built once, by Linking, and never changed afterwards.
#pragma once

#include <absl/container/flat_hash_set.h>
#include <absl/container/inlined_vector.h>

#include <algorithm>
#include <cstdint>
#include <functional>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "languages/language.h"
#include "lowered/tree.h"

namespace elmcart {

using TypeIndex = uint32_t;
using FunctionIndex = uint32_t;
using VariableIndex = uint32_t;
using ScopeIndex = uint32_t;
using FileIndex = uint32_t;
using TypeUseId = uint32_t;  // 0: unknown
inline constexpr uint32_t kNone = 0xFFFFFFFFu;

// A node of a file of the program.
struct Place {
  FileIndex file = kNone;
  NodeId node = kNoNode;
  bool known() const { return file != kNone; }
  friend bool operator==(const Place&, const Place&) = default;
};
// In the order of the files and of their text; around comes before inside.
inline bool before(Place a, Place b) { return a.file != b.file ? a.file < b.file : a.node < b.node; }
using Places = absl::InlinedVector<Place, 2>;  // most are declared once

// What a name stands for, packed into 32 bits.
struct Symbol {
  enum class Sort : uint8_t { None, Namespace, Type, Function, Variable, Alias, Enumerator, TypeParameter };
  uint32_t packed = 0;

  Symbol() = default;
  Symbol(Sort sort, uint32_t index) : packed(static_cast<uint32_t>(sort) << 28 | index) {}
  Sort sort() const { return static_cast<Sort>(packed >> 28); }
  uint32_t index() const { return packed & 0x0FFFFFFFu; }
  bool known() const { return packed != 0; }
  bool is(Sort s) const { return sort() == s; }
  friend bool operator==(Symbol, Symbol) = default;
};

// A type as used somewhere.
struct TypeUse {
  TypeIndex decl = kNone;   // a type of the program …
  NameId name = 0;          // … or else a library type's or type parameter's name
  uint32_t modifiers = 0;   // kPointer, kReference, kConst, kPointeeConst, kArray
  uint32_t firstArgument = 0;
  uint32_t argumentCount = 0;
  bool parameter = false;   // a template's type parameter
  bool iterator = false;    // walks over the collection whose arguments these are

  bool has(uint32_t bits) const { return (modifiers & bits) != 0; }
  friend bool operator==(const TypeUse&, const TypeUse&) = default;
  template <typename Hash>
  friend Hash AbslHashValue(Hash hash, const TypeUse& use) {
    return Hash::combine(std::move(hash), use.decl, use.name, use.modifiers, use.firstArgument, use.argumentCount, use.parameter, use.iterator);
  }
};

struct Base {
  TypeUseId use = 0;
  TypeIndex type = kNone;
  uint32_t visibility = kPublic;
};

struct TypeDecl {
  NameId name = 0;
  NameId qualified = 0;
  TypeForm form = TypeForm::Class;
  uint32_t modifiers = 0;
  Place definition;                  // not known for a type only declared
  Places declarations;               // forward ones
  ScopeIndex scope = kNone;          // its own
  ScopeIndex parent = kNone;
  FileIndex onlyIn = kNone;          // visible in one file only
  std::vector<Base> bases;             // their types form no circle: see Linker::breakCircles()
  std::vector<TypeIndex> derived;
  std::vector<VariableIndex> fields;   // instance fields, in order
  std::vector<VariableIndex> statics;  // class-level fields
  std::vector<FunctionIndex> methods;  // all member functions
  std::vector<NameId> typeParameters;
  std::vector<NameId> friends;
  bool hasUnknownBase = false;

  Place home() const { return definition.known() ? definition : declarations.front(); }
};

struct Function {
  NameId name = 0;
  NameId qualified = 0;
  FunctionForm form = FunctionForm::Function;
  uint32_t modifiers = 0;            // of all its declarations together
  TypeIndex owner = kNone;           // the class it is a member of
  ScopeIndex parent = kNone;         // the scope its name is in
  FileIndex onlyIn = kNone;
  Place definition;                  // with a body
  Places declarations;               // all, the definition included
  TypeUseId result = 0;
  std::vector<VariableIndex> parameters;
  uint32_t leastArguments = 0;
  uint32_t mostArguments = 0;
  std::vector<NameId> typeParameters;
  TypeIndex fixture = kNone;         // of a function that a macro makes a member of this class
  bool ofClassElsewhere = false;     // it is added to a class that is not in the tree

  Place home() const { return definition.known() ? definition : declarations.front(); }
  bool isStaticMember() const { return owner != kNone && (modifiers & kStatic); }
};

enum class Storage : uint8_t { Field, StaticField, Global, FunctionStatic, Local, Parameter };

struct Variable {
  NameId name = 0;
  NameId qualified = 0;
  Storage storage = Storage::Local;
  VariableForm form = VariableForm::Plain;
  uint32_t modifiers = 0;
  TypeIndex owner = kNone;           // of fields
  FunctionIndex function = kNone;    // of locals, parameters and function statics
  ScopeIndex parent = kNone;
  FileIndex onlyIn = kNone;
  Place definition;
  Places declarations;               // all, the definition included
  TypeUseId type = 0;
  bool ofClassElsewhere = false;     // an extension's, of a class that is not in the tree
  bool setOnObjects = false;         // code assigns to it through objects, which makes a field of theirs and leaves it alone

  Place home() const { return definition.known() ? definition : declarations.front(); }
  bool lives() const { return storage == Storage::StaticField || storage == Storage::Global || storage == Storage::FunctionStatic; }
};

// How a variable's value is touched at one place.
enum class Access : uint8_t { Read, Write, Update, Call, Bind };

struct Use {
  VariableIndex variable = kNone;
  Place place;
  FunctionIndex in = kNone;          // the function around it
  VariableIndex inInitialiserOf = kNone;
  Access access = Access::Read;
  bool throughPointer = false;       // what it points to is touched, not the variable itself
  bool inMember = false;             // a part of it is touched
};

struct CallSite {
  FunctionIndex callee = kNone;
  Place place;                       // the Call node (or Create, FieldInit … for constructors)
  FunctionIndex in = kNone;
  VariableIndex inInitialiserOf = kNone;
};

// A call of something that is not part of the program, by its name as written.
struct ForeignCall {
  NameId name = 0;
  Place place;
  FunctionIndex in = kNone;
  VariableIndex inInitialiserOf = kNone;
};

struct Creation {
  TypeIndex type = kNone;
  Place place;
  CreateForm form = CreateForm::Value;
  FunctionIndex in = kNone;
  VariableIndex inInitialiserOf = kNone;
  VariableIndex asVariable = kNone;  // the variable that is made this way, when it is one
  FunctionIndex constructor = kNone;
  bool asBase = false;               // a derived object's base part
  bool delegated = false;            // one constructor calling another
  bool copy = false;                 // made from another object of its class
};

struct Scope {
  enum class Sort : uint8_t { Global, Namespace, Type };
  Sort sort = Sort::Namespace;
  ScopeIndex parent = kNone;
  NameId name = 0;
  NameId qualified = 0;                   // of the last one around that has a name, itself included
  TypeIndex type = kNone;
  const Language* language = nullptr;     // of a global scope: the first of its family
  FileIndex onlyIn = kNone;               // an unnamed namespace
  std::vector<ScopeIndex> transparent;    // unnamed and inline namespaces inside
  bool passesOn = false;                  // who names it finds what some of `usings` holds, too
  std::vector<std::pair<FileIndex, NameId>> usings;       // namespaces made visible; kNone: in all files
  std::vector<std::pair<FileIndex, ScopeIndex>> opened;   // the same, those that are in the tree
};

// What the names of one file's nodes resolve to; parallel to the nodes.
struct FileLinks {
  std::vector<Symbol> symbol;      // of Name, Member, Call (the callee) and Create (the constructor) nodes
  std::vector<TypeUseId> type;     // of expressions
};

// Which items of a list belong to a number: their positions, in order.
class Positions {
 public:
  std::span<const uint32_t> operator[](uint32_t number) const { return {positions_.data() + first_[number], positions_.data() + first_[number + 1]}; }

  // key(item) is below `size`, or kNone for an item that belongs to none.
  template <typename Item, typename Key>
  void fill(size_t size, const std::vector<Item>& list, Key key) {
    first_.assign(size + 2, 0);
    for (const Item& item : list)
      if (uint32_t k = key(item); k != kNone) ++first_[k + 2];
    for (size_t i = 2; i < first_.size(); ++i) first_[i] += first_[i - 1];
    positions_.resize(first_.back());
    for (uint32_t i = 0; i < list.size(); ++i)
      if (uint32_t k = key(list[i]); k != kNone) positions_[first_[k + 1]++] = i;
    first_.pop_back();
  }

 private:
  std::vector<uint32_t> first_;  // by number: where its positions begin; one more at the end
  std::vector<uint32_t> positions_;
};

class Program {
 public:
  std::string root;
  std::vector<LoweredFile> files;
  std::vector<const Language*> languageOf;  // by file
  std::vector<FileLinks> links;             // by file
  std::vector<bool> testFile;               // by file: is it a test? Empty until who knows the configuration has said so
  NameTable names;

  std::vector<Scope> scopes;
  std::vector<TypeDecl> types;
  std::vector<Function> functions;
  std::vector<Variable> variables;
  std::vector<TypeUse> typeUses;            // 0 is the unknown one
  std::vector<TypeUseId> typeArguments;     // pool that TypeUse points into
  std::vector<Use> uses;                    // in order of file and place
  std::vector<CallSite> calls;
  std::vector<ForeignCall> foreignCalls;
  std::vector<Creation> creations;

  // ----- indices over the lists above
  Positions usesOfVariable;      // positions in uses
  Positions callsOfFunction;     // positions in calls, by callee
  Positions callsInFunction;     // positions in calls, by caller
  Positions usesInFunction;
  Positions foreignCallsInFunction;
  Positions creationsOfType;
  Positions creationsInFunction;

  // ----- reading
  const LoweredFile& file(Place place) const { return files[place.file]; }
  const Node& node(Place place) const { return files[place.file].nodes[place.node]; }
  bool inOtherBranch(Place place) const { return !files[place.file].otherBranches.empty() && files[place.file].inOtherBranch(place.node); }
  std::string_view nameOf(Place place) const { return files[place.file].name(place.node); }
  uint32_t line(Place place) const { return files[place.file].line(place.node); }
  const std::string& path(Place place) const { return files[place.file].path; }
  std::string_view text(NameId id) const { return names.text(id); }
  Place parent(Place place) const { return {place.file, files[place.file].parents[place.node]}; }
  // The value that an assignment gives to what is written at the place, of several at once the one that belongs to it;
  // kNoNode where it is written otherwise, or where one value is taken apart.
  NodeId assignedAt(Place written) const;
  Symbol symbolAt(Place place) const { return links[place.file].symbol[place.node]; }
  TypeUseId typeAt(Place place) const { return links[place.file].type[place.node]; }
  const Guarantees& guarantees(FileIndex f) const { return *languageOf[f]->guarantees; }
  const Language& language(FileIndex f) const { return *languageOf[f]; }
  bool inTests(Place place) const { return place.file < testFile.size() && testFile[place.file]; }

  // Calls work(f) for each file, by several threads, the largest first (0: as many as the machine has).
  void forEachFile(unsigned jobs, const std::function<void(FileIndex)>& work) const;

  // The nearest node around `place` (itself excluded) of that kind inside the
  // same function, or one with node kNoNode.
  Place around(Place place, Kind kind) const;
  bool isInside(Place inner, NodeId outer) const;
  bool isHeader(FileIndex f) const;

  // ----- types
  const TypeUse& use(TypeUseId id) const { return typeUses[id]; }
  TypeUseId argument(const TypeUse& use, uint32_t i) const { return i < use.argumentCount ? typeArguments[use.firstArgument + i] : 0; }
  // Traits of a library type by the guarantees of the language of `f`.
  uint32_t traits(FileIndex f, TypeUseId id) const;
  // The class reached through references, pointers and pointer-like library
  // types (owning pointers, optionals, atomics); kNone when there is none.
  TypeIndex classBehind(FileIndex f, TypeUseId id) const;
  std::string typeText(TypeUseId id) const;
  // Every walk over bases or derived classes goes through these two. Each class is visited once,
  // however often it is inherited, and at most kMostRelatives are: the visit that answers true
  // ends the walk, and the result says whether one did. Bases come depth first, in the order
  // in which they are written; `through` is the base by which a class was reached (null: itself).
  template <typename Visit>  // bool visit(TypeIndex type, const Base* through)
  bool anyBase(TypeIndex type, Visit visit) const;
  // Nearest first, itself included.
  template <typename Visit>  // bool visit(TypeIndex type)
  bool anyDerived(TypeIndex type, Visit visit) const;
  // The first base of that class that is in the tree and that `fits` accepts; kNone: there is none.
  template <typename Fits>
  TypeIndex firstBase(TypeIndex type, Fits fits) const {
    for (const Base& base : types[type].bases)
      if (base.type != kNone && fits(base.type)) return base.type;
    return kNone;
  }
  bool derivesFrom(TypeIndex derived, TypeIndex base) const;
  // Is an object of this class copyable from outside, and why not?
  bool isCopyable(TypeIndex type, FileIndex f) const;

 private:
  bool isCopyable(TypeIndex type, FileIndex f, std::vector<TypeIndex>& asked) const;
};

inline constexpr size_t kMostRelatives = 1000;

template <typename Visit>
bool Program::anyBase(TypeIndex type, Visit visit) const {
  absl::InlinedVector<std::pair<TypeIndex, const Base*>, 8> open = {{type, nullptr}};
  absl::InlinedVector<TypeIndex, 8> seen;
  absl::flat_hash_set<TypeIndex> many;  // instead of `seen`, when there are many
  while (!open.empty() && seen.size() + many.size() < kMostRelatives) {
    auto [at, through] = open.back();
    open.pop_back();
    if (many.empty() ? std::find(seen.begin(), seen.end(), at) != seen.end() : many.count(at) > 0) continue;
    if (many.empty() && seen.size() == 32) {
      many.insert(seen.begin(), seen.end());
      seen.clear();
    }
    if (many.empty()) seen.push_back(at);
    else many.insert(at);
    if (visit(at, through)) return true;
    const std::vector<Base>& bases = types[at].bases;
    for (size_t i = bases.size(); i-- > 0;)
      if (bases[i].type != kNone) open.emplace_back(bases[i].type, &bases[i]);
  }
  return false;
}

template <typename Visit>
bool Program::anyDerived(TypeIndex type, Visit visit) const {
  std::vector<TypeIndex> open = {type};
  absl::flat_hash_set<TypeIndex> seen = {type};
  for (size_t i = 0; i < open.size() && i < kMostRelatives; ++i) {
    if (visit(open[i])) return true;
    for (TypeIndex d : types[open[i]].derived)
      if (seen.insert(d).second) open.push_back(d);
  }
  return false;
}

// Does the function's own comment say that it is not made for several threads? Then who calls it from outside is told.
bool saysOneThread(const Program& program, FunctionIndex function);

// Calls `each` with the items of a list sorted by place that stand inside a node, itself included.
template <typename Item, typename Each>
void forEachInside(const Program& p, const std::vector<Item>& items, Place node, Each each) {
  auto key = [](Place place) { return std::make_pair(place.file, place.node); };
  auto at = std::lower_bound(items.begin(), items.end(), node, [&](const Item& item, Place place) { return key(item.place) < key(place); });
  for (; at != items.end() && at->place.file == node.file && (at->place == node || p.isInside(at->place, node.node)); ++at) each(*at);
}

class Linker;

// Links lowered files into a program. Never fails: what cannot be resolved
// stays unknown. The files may be handed in while others are still being lowered.
// `jobs` threads at most (0: all); the result is the same for any number.
class Linking {
 public:
  // About how many files and bytes of source there will be.
  Linking(std::string root, size_t files, size_t bytes, unsigned jobs);
  ~Linking();
  // The next file; one thread at a time. Of a variable that many programs of the tree define, each for itself, that of a `test` is
  // not the one that others mean, while there is another.
  void add(LoweredFile file, bool test = false);
  // Once, after the last.
  Program finish();

 private:
  Program program_;
  std::unique_ptr<Linker> linker_;
};

// The same of files that are all there.
Program link(std::string root, std::vector<LoweredFile> files, unsigned jobs = 1);

}  // namespace elmcart
