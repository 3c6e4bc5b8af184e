// The work behind link(): in three passes over all files.
//   collect.cpp   every declaration gets its place in a scope;
//   resolve.cpp   how a name is looked up and a written type is understood;
//   bodies.cpp    function bodies and initialisers: names, types, uses.
#pragma once

#include <absl/container/flat_hash_map.h>
#include <absl/container/node_hash_map.h>

#include <functional>
#include <map>

#include "program/program.h"

namespace elmcart {

class Linker {
 public:
  Linker(Program& program, unsigned jobs) : p_(program), jobs_(jobs) {}
  void run();

 private:
  friend class BodyWalk;

  // ----- collect.cpp
  struct Pending {  // an out-of-line definition: joined when all classes are known
    Place place;
    ScopeIndex scope;
  };
  void collectFile(FileIndex f);
  ScopeIndex rootOf(FileIndex f) const { return rootOfFile_[f]; }
  void makeRoots();
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
  void fillParameters(FunctionIndex index, Place place);
  void add(ScopeIndex scope, NameId name, Symbol symbol);
  NameId qualify(ScopeIndex scope, NameId name);
  NameId global(FileIndex f, NameId local) const { return nameMap_[f][local]; }
  uint32_t countParameters(Place place) const;

  // ----- resolve.cpp
  // What `name` means seen from `scope` in file `f`; for functions the first
  // of the overloads. `skipFunctions`: a type is wanted.
  Symbol lookup(std::string_view name, ScopeIndex scope, FileIndex f, bool wantType = false) const;
  // The same, remembered: for the passes after all declarations are collected.
  Symbol lookupKnown(NameId name, ScopeIndex scope, FileIndex f, bool wantType);
  Symbol lookupOutward(NameId name, ScopeIndex scope, FileIndex f, bool wantType) const;
  Symbol lookupIn(NameId name, ScopeIndex scope, FileIndex f, bool wantType, int depth = 0) const;
  // A variable of that name in one of the namespaces around, whoever may see it.
  Symbol globalNamed(NameId name, ScopeIndex scope) const;
  const std::vector<Symbol>* entries(ScopeIndex scope, NameId name) const;
  void resolveUsings(ScopeIndex from);
  ScopeIndex namespaceIn(ScopeIndex scope, std::string_view name) const;
  ScopeIndex scopeOf(Symbol symbol, FileIndex f) const;
  Symbol followAlias(Symbol symbol, FileIndex f) const;
  Symbol aliasTarget(Symbol symbol, FileIndex f) const;
  // A module by the end of its path: imports name paths from a folder that is not told.
  Symbol moduleNamed(std::string_view target, FileIndex f) const;
  void indexModules();
  void forgetAliases() { aliasStates_.clear(); }
  bool visible(Symbol symbol, FileIndex f) const;
  bool declaredFor(VariableIndex v, FileIndex f) const;
  Symbol best(const std::vector<Symbol>& list, FileIndex f, bool wantType) const;
  TypeUseId writtenType(FileIndex f, NodeId typeRef, ScopeIndex scope, int depth = 0);
  TypeUseId addUse(const TypeUse& use) { p_.typeUses.push_back(use); return static_cast<TypeUseId>(p_.typeUses.size() - 1); }
  TypeUseId withModifiers(TypeUseId id, uint32_t add, uint32_t remove);
  // The member `name` of a class or its bases; `through` becomes the base's
  // type use when it was found in one.
  std::vector<Symbol> members(TypeIndex type, NameId name, TypeUseId* through = nullptr, int depth = 0) const;
  TypeUseId substitute(TypeUseId id, TypeUseId receiver, int depth = 0);
  ScopeIndex lookupScopeFor(FunctionIndex function) const;

  void collectLocalTypes();
  void inferTypes();
  ScopeIndex bodyScope(FunctionIndex function);
  VariableIndex monitorOf(TypeIndex type, bool ofClass);
  void forEachFile(const std::function<void(FileIndex)>& work) const;
  std::vector<Use> usesIn(FileIndex f) const;
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
  std::map<std::string_view, ScopeIndex> roots_;                      // by family of languages
  std::map<std::string, std::vector<ScopeIndex>, std::less<>> modules_;  // by their last part
  std::map<std::pair<TypeIndex, bool>, VariableIndex> monitors_;
  std::vector<std::vector<NameId>> nameMap_;  // by file: local name id to the program's
  absl::node_hash_map<uint64_t, std::vector<Symbol>> table_;
  std::vector<AliasDecl> aliases_;
  std::vector<Pending> pendingFunctions_, pendingVariables_, pendingTypes_, pendingParts_;
  bool collectingPart_ = false;
  std::vector<std::pair<Place, ScopeIndex>> typeScopes_;  // bases still to resolve
  enum class AliasState : uint8_t { Unknown, Asked, Known };
  absl::flat_hash_map<uint64_t, Symbol> remembered_;
  mutable std::vector<AliasState> aliasStates_;
  mutable std::vector<Symbol> aliasTargets_;
  absl::flat_hash_map<FunctionIndex, ScopeIndex> localScopes_;  // of functions that declare types inside
};

}  // namespace elmcart
