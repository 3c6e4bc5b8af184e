// The work behind link():
//   collect.cpp    every declaration gets its place in a scope;
//   resolve.cpp    how a name is looked up;
//   body_walk.cpp  function bodies and initialisers: names, types, calls;
//   uses.cpp       who uses which variable, and the indices;
// and link.cpp says in which order, and what of it several threads do. What they
// add to the program they put into batches (batch.h).
#pragma once

#include <absl/container/flat_hash_map.h>

#include <functional>
#include <map>

#include "program/batch.h"

namespace elmcart {

// What a name stands for in one scope: more than one where functions are overloaded.
using Symbols = absl::InlinedVector<Symbol, 2>;

class Linker {
 public:
  Linker(Program& program, unsigned jobs) : p_(program), jobs_(jobs) {}
  // About so many bytes of source are to come.
  void expect(size_t bytes);
  // The program's last file: its names and declarations.
  void takeLastFile(bool test);
  // Everything else.
  void run();

 private:
  friend class BodyWalk;
  friend class Overloads;
  friend class Batch;
  friend void merge(Linker& linker, std::deque<Batch>& batches, unsigned jobs);

  // ----- collect.cpp
  struct Pending {  // an out-of-line definition: joined when all classes are known
    Place place;
    ScopeIndex scope;
  };
  ScopeIndex rootOf(FileIndex f) const { return rootOfFile_[f]; }
  ScopeIndex addRoot(FileIndex f);
  void collect(FileIndex f, NodeId parent, ScopeIndex scope);
  ScopeIndex namespaceScope(FileIndex f, ScopeIndex parent, std::string_view name, bool transparent);
  void collectType(FileIndex f, NodeId node, ScopeIndex scope);
  void collectFunction(FileIndex f, NodeId node, ScopeIndex scope);
  void collectVariable(FileIndex f, NodeId node, ScopeIndex scope);
  void addVariable(Place place, ScopeIndex scope, NameId name, FileIndex onlyIn);
  void renameLast(Place place);
  FunctionIndex addFunction(Place place, ScopeIndex scope, NameId name);
  void mergeFunction(FunctionIndex index, Place place);
  void collectPart(const Pending& part);
  void joinPending();
  void resolveDeclaredTypes();
  void breakCircles();
  void fillSignature(Batch& batch, FunctionIndex index);
  void add(ScopeIndex scope, NameId name, Symbol symbol);
  void addAlias(Place place, ScopeIndex scope, NameId name);
  Scope& addScope(ScopeIndex parent, NameId name);
  // The name with those of the scopes around it. Not findable: it gets an id of its own.
  NameId qualify(ScopeIndex scope, NameId name, bool findable = true);
  NameId global(FileIndex f, NameId local) const { return nameMap_[f][local]; }
  uint32_t countParameters(Place place) const;

  // ----- resolve.cpp
  // What `name` means seen from `scope` in file `f`; for functions the first
  // of the overloads. `skipFunctions`: a type is wanted.
  Symbol lookup(std::string_view name, ScopeIndex scope, FileIndex f, bool wantType = false) const;
  Symbol lookupOutward(NameId name, ScopeIndex scope, FileIndex f, bool wantType) const;
  Symbol lookupIn(NameId name, ScopeIndex scope, FileIndex f, bool wantType, int depth = 0) const;
  // A variable of that name in one of the namespaces around, whoever may see it.
  Symbol globalNamed(NameId name, ScopeIndex scope) const;
  // Null for none; good until the next is added.
  const Symbols* entries(ScopeIndex scope, NameId name) const;
  void resolveUsings(ScopeIndex from);
  ScopeIndex namespaceIn(ScopeIndex scope, std::string_view name) const;
  ScopeIndex scopeOf(Symbol symbol, FileIndex f) const;
  Symbol followAlias(Symbol symbol, FileIndex f) const;
  Symbol aliasTarget(Symbol symbol, FileIndex f) const;
  // A module by the end of its path: imports name paths from a folder that is not told.
  Symbol moduleNamed(std::string_view target, FileIndex f) const;
  Symbol moduleAsWritten(std::string_view target, FileIndex f) const;
  void indexModules();
  void forgetAliases() { aliasStates_.clear(); }
  Place homeOf(Symbol symbol) const;
  bool visible(Symbol symbol, FileIndex f) const;
  bool declaredFor(VariableIndex v, FileIndex f) const;
  Symbol best(const Symbols& list, FileIndex f, bool wantType) const;
  size_t sharedFolders(FileIndex a, FileIndex b) const;
  Symbol lookupPassedOn(NameId name, ScopeIndex scope, FileIndex f, bool wantType) const;
  // The member `name` of a class or its bases; `through` becomes the base's
  // type use when it was found in one.
  const Symbols& members(TypeIndex type, NameId name, TypeUseId* through = nullptr) const;
  // A field that a base gives each object, where the nearer classes only have a value of the class by that name.
  Symbol fieldOfObjects(TypeIndex type, NameId name) const;
  Symbols membersAcross(TypeIndex type, NameId name, FileIndex f) const;
  ScopeIndex lookupScopeFor(FunctionIndex function) const;

  // ----- link.cpp
  void collectLocalTypes();
  void collectLocalType(FileIndex f, NodeId n);
  void resolveAliases();
  void inferTypes();
  void walkBodies();
  void walkBody(Batch& batch, FunctionIndex i);
  void walkInitialisers();
  void walkValueOf(Batch& batch, VariableIndex v);
  bool infers(FunctionIndex function) const;
  // Is the variable's type only to be read off its value?
  bool untold(VariableIndex v) const;
  TypeUseId asDeduced(Batch& batch, Place variable, TypeUseId value) const;
  // Calls work(batch, i) for each i below count, from several threads: each batch
  // has some hundred i in a row.
  void inBatches(size_t count, const std::function<void(Batch&, uint32_t)>& work);
  // The same, and for each i with alone(i) after all others, one after the other and in place.
  void inBatches(size_t count, const std::function<bool(uint32_t)>& alone, const std::function<void(Batch&, uint32_t)>& work);
  ScopeIndex bodyScope(FunctionIndex function);
  ScopeIndex valueScope(VariableIndex v) const;
  VariableIndex monitorOf(TypeIndex type, bool ofClass);

  // ----- uses.cpp
  std::vector<Use> usesIn(FileIndex f, std::vector<VariableIndex>& setOnObjects) const;
  bool isPartOfItsDefinition(FileIndex f, NodeId n, VariableIndex v) const;
  bool makesField(FileIndex f, NodeId n, VariableIndex v) const;
  void index();

  struct AliasDecl {
    Place place;
    ScopeIndex scope;
    NameId name;
  };

  Program& p_;
  unsigned jobs_;
  std::vector<ScopeIndex> rootOfFile_;
  std::vector<ScopeIndex> moduleOfFile_;  // where modules stand apart: the file's own; else kNone
  std::map<std::string_view, ScopeIndex> roots_;                      // by family of languages
  std::map<std::string, std::vector<ScopeIndex>, std::less<>> modules_;  // by their last part
  std::map<std::pair<TypeIndex, bool>, VariableIndex> monitors_;
  std::vector<std::vector<NameId>> nameMap_;  // by file: local name id to the program's
  std::vector<bool> ofTests_;                 // by file
  struct Named {
    Symbols symbols;
    FileIndex file = kNone;  // that has added to it last, and how often
    uint32_t inFile = 0;
  };
  absl::flat_hash_map<uint64_t, Named> table_;  // by scope and name
  std::vector<AliasDecl> aliases_;
  std::vector<Pending> pendingFunctions_, pendingVariables_, pendingTypes_, pendingParts_;
  bool collectingPart_ = false;
  std::vector<std::pair<Place, ScopeIndex>> typeScopes_;  // bases still to resolve
  enum class AliasState : uint8_t { Unknown, Asked, Known };
  mutable std::vector<AliasState> aliasStates_;
  mutable std::vector<Symbol> aliasTargets_;
  mutable int aliasDepth_ = 0;     // aliases that wait for each other just now
  mutable bool aliasCut_ = false;  // too many did, so the last answer is none yet
  absl::flat_hash_map<FunctionIndex, ScopeIndex> localScopes_;  // of functions that declare types inside
};

}  // namespace elmcart
