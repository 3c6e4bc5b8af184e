#include <algorithm>

#include "base/text.h"
#include "program/linker.h"

namespace elmcart {

Place Linker::homeOf(Symbol symbol) const {
  if (symbol.is(Symbol::Sort::Type)) return p_.types[symbol.index()].definition;
  if (symbol.is(Symbol::Sort::Function)) return p_.functions[symbol.index()].declarations.front();
  if (symbol.is(Symbol::Sort::Variable)) return p_.variables[symbol.index()].declarations.front();
  if (symbol.is(Symbol::Sort::Alias)) return aliases_[symbol.index()].place;
  return {};
}

bool Linker::visible(Symbol symbol, FileIndex f) const {
  FileIndex onlyIn = kNone;
  if (symbol.is(Symbol::Sort::Type)) onlyIn = p_.types[symbol.index()].onlyIn;
  if (symbol.is(Symbol::Sort::Function)) onlyIn = p_.functions[symbol.index()].onlyIn;
  if (symbol.is(Symbol::Sort::Variable)) onlyIn = p_.variables[symbol.index()].onlyIn;
  if (symbol.is(Symbol::Sort::Namespace)) onlyIn = p_.scopes[symbol.index()].onlyIn;
  if (symbol.is(Symbol::Sort::Alias)) {
    FileIndex from = aliases_[symbol.index()].place.file;
    if (p_.language(from).importsInFileOnly && p_.node(aliases_[symbol.index()].place).kind == Kind::Using) onlyIn = from;
  }
  if (onlyIn != kNone) return onlyIn == f;
  if (std::string_view ending = p_.language(f).testFileEnding; !ending.empty() && !p_.files[f].path.ends_with(ending))
    if (Place home = homeOf(symbol); home.known() && p_.path(home).ends_with(ending)) return false;
  return !symbol.is(Symbol::Sort::Variable) || declaredFor(symbol.index(), f);
}

// Where files are translated one by one, a global that no header declares is seen
// only where a file declares it itself or includes the one that does: C++20
// [basic.lookup.unqual]/1, C11 6.2.1.
bool Linker::declaredFor(VariableIndex v, FileIndex f) const {
  const Variable& variable = p_.variables[v];
  if (variable.storage != Storage::Global || p_.language(f).headerExtensions.empty()) return true;
  auto includes = [&](std::string_view path) {
    const LoweredFile& file = p_.files[f];
    std::string_view name = path.substr(path.rfind('/') + 1);
    return std::any_of(file.nodes.begin(), file.nodes.end(), [&](const Node& node) { return node.kind == Kind::Import && file.name(node).ends_with(name); });
  };
  return std::any_of(variable.declarations.begin(), variable.declarations.end(), [&](Place place) {
    return place.file == f || p_.isHeader(place.file) || includes(p_.path(place));
  });
}

Symbol Linker::globalNamed(NameId name, ScopeIndex scope) const {
  for (ScopeIndex at = scope; at != kNone; at = p_.scopes[at].parent)
    if (const auto* known = p_.scopes[at].sort == Scope::Sort::Type ? nullptr : entries(at, name))
      for (Symbol symbol : *known)
        if (symbol.is(Symbol::Sort::Variable) && p_.variables[symbol.index()].onlyIn == kNone) return symbol;
  return {};
}

// How many folders at the beginning two paths share.
size_t Linker::sharedFolders(FileIndex a, FileIndex b) const {
  std::string_view one = p_.files[a].path, other = p_.files[b].path;
  size_t shared = 0;
  for (size_t i = 0; i < one.size() && i < other.size() && one[i] == other[i]; ++i) shared += one[i] == '/';
  return shared;
}

// Of several, the one in the same file (what it imports by name stands in it), then the nearest in
// the tree, then the first. A namespace only where nothing else bears the name.
Symbol Linker::best(const Symbols& list, FileIndex f, bool wantType) const {
  Symbol found, space;
  size_t nearest = 0;
  for (Symbol symbol : list) {
    if (!visible(symbol, f)) continue;
    if (symbol.is(Symbol::Sort::Namespace)) {
      if (!space.known()) space = symbol;
      continue;
    }
    bool isType = symbol.is(Symbol::Sort::Type) || symbol.is(Symbol::Sort::Alias) || symbol.is(Symbol::Sort::TypeParameter);
    if (wantType && !isType) continue;
    if (list.size() == 1) return symbol;
    Place place = homeOf(symbol);
    if (place.known() && place.file == f) return symbol;
    size_t near = place.known() ? 1 + sharedFolders(place.file, f) : 0;
    if (!found.known() || near > nearest) found = symbol, nearest = near;
  }
  return found.known() ? found : space;
}

const Symbols& Linker::members(TypeIndex type, NameId name, TypeUseId* through) const {
  static const Symbols kNoSymbols;
  const Symbols* found = &kNoSymbols;
  p_.anyBase(type, [&](TypeIndex at, const Base* by) {
    const Symbols* own = entries(p_.types[at].scope, name);
    if (!own) return false;
    found = own;
    if (through && by && *through == 0) *through = by->use;
    return true;
  });
  return *found;
}

Symbol Linker::fieldOfObjects(TypeIndex type, NameId name) const {
  Symbol found;
  p_.anyBase(type, [&](TypeIndex at, const Base*) {
    if (const Symbols* own = entries(p_.types[at].scope, name))
      for (Symbol symbol : *own)
        if (symbol.is(Symbol::Sort::Variable) && p_.variables[symbol.index()].storage == Storage::Field) found = symbol;
    return found.known();
  });
  return found;
}

// A member of a class of another language of the family, by the name that this one gives it (Kotlin, Calling Kotlin
// from Java; Calling Java code from Kotlin, "Synthetic properties"): Tide.INSTANCE is the object Tide, getLevel() reads the
// property level, and level calls getLevel().
Symbols Linker::membersAcross(TypeIndex type, NameId name, FileIndex f) const {
  const TypeDecl& decl = p_.types[type];
  Symbols out;
  if (!decl.definition.known() || p_.language(decl.definition.file).id == p_.language(f).id || !p_.language(f).dotted) return out;
  std::string_view text = p_.names.text(name);
  if (decl.form == TypeForm::Object && text == "INSTANCE") return {Symbol(Symbol::Sort::Type, type)};
  std::string other;
  if (text.size() > 3 && text.starts_with("get")) other = std::string(1, static_cast<char>(text[3] | 0x20)) + std::string(text.substr(4));
  else if (!text.empty()) other = "get" + std::string(1, static_cast<char>(text[0] & ~0x20)) + std::string(text.substr(1));
  NameId id = p_.names.find(other);
  return id ? members(type, id) : out;
}

Symbol Linker::lookupIn(NameId name, ScopeIndex scope, FileIndex f, bool wantType, int depth) const {
  if (depth > 40) return {};
  const Scope& at = p_.scopes[scope];
  if (at.sort == Scope::Sort::Type) {
    const Symbols& list = members(at.type, name);
    if (wantType || p_.language(f).bareMethods) return best(list, f, wantType);
    Symbols others;
    for (Symbol symbol : list)
      if (!symbol.is(Symbol::Sort::Function)) others.push_back(symbol);
    return best(others, f, wantType);
  }
  if (const auto* own = entries(scope, name))
    if (Symbol found = best(*own, f, wantType); found.known()) return found;
  for (ScopeIndex inner : at.transparent) {
    if (p_.scopes[inner].onlyIn != kNone && p_.scopes[inner].onlyIn != f) continue;
    if (Symbol found = lookupIn(name, inner, f, wantType, depth + 1); found.known()) return found;
  }
  return at.passesOn ? lookupPassedOn(name, scope, f, wantType) : Symbol{};
}

// What a module hands on of others, and they of others yet: each is asked once.
Symbol Linker::lookupPassedOn(NameId name, ScopeIndex scope, FileIndex f, bool wantType) const {
  std::vector<ScopeIndex> open = {scope};
  for (size_t i = 0; i < open.size() && open.size() < kMostRelatives; ++i) {
    for (auto [file, opened] : p_.scopes[open[i]].opened) {
      if (file != kNone || std::find(open.begin(), open.end(), opened) != open.end()) continue;
      if (const auto* own = entries(opened, name))
        if (Symbol found = best(*own, f, wantType); found.known()) return found;
      open.push_back(opened);
    }
  }
  return {};
}

Symbol Linker::lookupOutward(NameId name, ScopeIndex scope, FileIndex f, bool wantType) const {
  bool bareMembers = wantType || p_.language(f).bareMembers;
  for (ScopeIndex at = scope; at != kNone; at = at == moduleOfFile_[f] ? rootOfFile_[f] : p_.scopes[at].parent) {
    if (!bareMembers && p_.scopes[at].sort == Scope::Sort::Type) continue;
    if (Symbol found = lookupIn(name, at, f, wantType); found.known()) return found;
    for (auto [file, opened] : p_.scopes[at].opened) {
      if ((file != kNone && file != f) || opened == at) continue;
      if (Symbol found = lookupIn(name, opened, f, wantType); found.known()) return found;
    }
  }
  return {};
}

// Which namespaces the using directives open: found without other using
// directives, so that no two can wait for each other.
void Linker::resolveUsings(ScopeIndex from) {
  for (ScopeIndex at = from; at < p_.scopes.size(); ++at) {
    for (auto [file, name] : p_.scopes[at].usings) {
      std::string_view rest = p_.names.text(name);
      ScopeIndex found = kNone;
      std::string_view first = rest.substr(0, rest.find("::"));
      for (ScopeIndex outer = at; outer != kNone && found == kNone; outer = p_.scopes[outer].parent) found = namespaceIn(outer, first);
      while (found != kNone && rest.find("::") != std::string_view::npos) {
        rest.remove_prefix(rest.find("::") + 2);
        found = namespaceIn(found, rest.substr(0, rest.find("::")));
      }
      if (found != kNone) p_.scopes[at].opened.emplace_back(file, found);
    }
  }
}

ScopeIndex Linker::namespaceIn(ScopeIndex scope, std::string_view name) const {
  NameId id = p_.names.find(name);
  const auto* list = id ? entries(scope, id) : nullptr;
  if (list)
    for (Symbol symbol : *list)
      if (symbol.is(Symbol::Sort::Namespace)) return symbol.index();
  return kNone;
}

ScopeIndex Linker::scopeOf(Symbol symbol, FileIndex f) const {
  symbol = followAlias(symbol, f);
  if (symbol.is(Symbol::Sort::Namespace)) return symbol.index();
  if (symbol.is(Symbol::Sort::Type)) return p_.types[symbol.index()].scope;
  return kNone;
}

Symbol Linker::followAlias(Symbol symbol, FileIndex f) const {
  if (!symbol.is(Symbol::Sort::Alias)) return symbol;
  if (aliasStates_.size() < aliases_.size()) {
    aliasStates_.resize(aliases_.size());
    aliasTargets_.resize(aliases_.size());
  }
  uint32_t index = symbol.index();
  // Aliases may name each other in a circle, through the scopes they are looked up in.
  if (aliasStates_[index] == AliasState::Known) return aliasTargets_[index];
  // A chain of more than so many, named from its far end, is followed when those behind are known.
  constexpr int kMostAtOnce = 200;
  if (aliasStates_[index] == AliasState::Asked) return {};
  if (aliasDepth_ == 0) aliasCut_ = false;
  if (aliasDepth_ >= kMostAtOnce) {
    aliasCut_ = true;
    return {};
  }
  aliasStates_[index] = AliasState::Asked;
  ++aliasDepth_;
  Symbol target = aliasTarget(symbol, f);
  --aliasDepth_;
  aliasStates_[index] = aliasCut_ && !target.known() ? AliasState::Unknown : AliasState::Known;
  aliasTargets_[index] = target;
  return target;
}

Symbol Linker::aliasTarget(Symbol symbol, FileIndex f) const {
  const AliasDecl& alias = aliases_[symbol.index()];
  const LoweredFile& file = p_.file(alias.place);
  std::string_view target;
  bool renamed = file[alias.place.node].kind == Kind::Using && file.child(alias.place.node, Role::Type) != kNoNode;
  if (file[alias.place.node].kind == Kind::Using && !renamed) {
    target = file.name(alias.place.node);
  } else if (renamed) {
    target = file.name(file.child(alias.place.node, Role::Type));
  } else {
    NodeId type = file.child(alias.place.node, Role::Type);
    if (type == kNoNode || file[type].has(kPointer)) return {};
    target = file.name(type);
  }
  ScopeIndex from = alias.scope;
  if (target == p_.names.text(alias.name)) {  // typedef struct Foo Foo;
    const auto* list = entries(from, alias.name);
    if (list)
      for (Symbol other : *list)
        if (other.is(Symbol::Sort::Type)) return other;
    from = p_.scopes[from].parent;
    if (from == kNone) return {};
  }
  // An import names a path from the top, never what it makes visible itself.
  bool dotted = p_.language(alias.place.file).dotted && file[alias.place.node].kind == Kind::Using;
  if (dotted) from = rootOf(alias.place.file);
  Symbol found = lookup(target, from, alias.place.file, !dotted);
  if (!found.known() && dotted) found = moduleNamed(target, alias.place.file);
  if (!found.known() && file[alias.place.node].kind == Kind::Using) found = lookup(target, from, alias.place.file, false);
  // What a module of many names hands out as a whole is the module.
  if (!found.known() && dotted && target.ends_with("::default")) {
    target = scopePart(target);
    found = lookup(target, from, alias.place.file, false);
    if (!found.known()) found = moduleNamed(target, alias.place.file);
  }
  if (found == symbol) {  // a module's own part, made visible in it under its name
    ScopeIndex part = namespaceIn(alias.scope, lastPart(target));
    return part == kNone ? Symbol{} : Symbol(Symbol::Sort::Namespace, part);
  }
  return followAlias(found, f);
}

Symbol Linker::moduleNamed(std::string_view target, FileIndex f) const {
  Symbol found = moduleAsWritten(target, f);
  if (found.known() || familyOf(p_.language(f)) != "script") return found;
  // Who imports may leave out an ending that belongs to a module's name; the last part may be something inside.
  std::string outer(scopePart(target)), last(lastPart(target));
  for (const char* ending : {".mjs", ".cjs"}) {
    found = moduleAsWritten(std::string(target) + ending, f);
    if (!found.known() && !outer.empty()) found = moduleAsWritten(outer + ending + "::" + last, f);
    if (found.known()) break;
  }
  return found;
}

Symbol Linker::moduleAsWritten(std::string_view target, FileIndex f) const {
  std::string_view last = lastPart(target);
  // How many parts at the end are the same; 0 where it is not that module. Either may begin further up than
  // the other: an import may leave out the folder that it is searched from, and may name what the tree stands in.
  auto sameEnd = [&](ScopeIndex scope, std::string_view path) -> size_t {
    ScopeIndex at = scope;
    while (p_.scopes[at].parent != kNone) at = p_.scopes[at].parent;
    if (at != rootOf(f)) return 0;
    at = scope;
    size_t parts = 0;
    for (;; ++parts) {
      // A module may stand anywhere in the tree: what comes before is its own name.
      if (p_.names.text(p_.scopes[at].name) != lastPart(path)) return parts > 1 && p_.language(f).modulesByName ? parts : 0;
      at = p_.scopes[at].parent;
      path = scopePart(path);
      bool top = at == kNone || p_.scopes[at].sort == Scope::Sort::Global;
      if (path.empty() || top) break;
    }
    // What the import leaves out is a folder that the importing file lies in too.
    std::string folder;
    for (; at != kNone && p_.scopes[at].sort != Scope::Sort::Global; at = p_.scopes[at].parent) folder = std::string(p_.names.text(p_.scopes[at].name)) + "/" + folder;
    if (!path.empty() && !p_.language(f).modulesByFolder) return 0;
    return p_.files[f].path.substr(0, folder.size()) == folder ? parts + 1 : 0;
  };
  // A folder that is called like the one around it is not that one.
  ScopeIndex nearest = kNone;
  size_t most = 0;
  if (auto list = modules_.find(last); list != modules_.end())
    for (ScopeIndex scope : list->second)
      if (size_t parts = sameEnd(scope, target); parts > most) nearest = scope, most = parts;
  if (nearest != kNone) return Symbol(Symbol::Sort::Namespace, nearest);
  // The last part names something inside a module.
  std::string_view outer = scopePart(target);
  if (outer.empty()) return {};
  if (auto list = modules_.find(lastPart(outer)); list != modules_.end()) {
    NameId id = p_.names.find(last);
    for (ScopeIndex scope : list->second) {
      if (!id || sameEnd(scope, outer) == 0) continue;
      if (Symbol found = lookupIn(id, scope, f, false); found.known()) return found;
    }
  }
  return {};
}

Symbol Linker::lookup(std::string_view name, ScopeIndex scope, FileIndex f, bool wantType) const {
  size_t split = name.find("::");
  if (split == std::string_view::npos) {
    NameId id = p_.names.find(name);
    return id ? lookupOutward(id, scope, f, wantType) : Symbol{};
  }
  NameId first = p_.names.find(name.substr(0, split));
  Symbol at = first ? lookupOutward(first, scope, f, true) : Symbol{};
  std::string_view rest = name.substr(split + 2);
  for (int i = 0; at.known() && i < 32; ++i) {
    ScopeIndex inner = scopeOf(at, f);
    if (inner == kNone) return {};
    split = rest.find("::");
    NameId id = p_.names.find(rest.substr(0, split));
    if (!id) return {};
    // On the way to what is named a module serves before another thing of its name.
    ScopeIndex space = split == std::string_view::npos ? kNone : namespaceIn(inner, p_.names.text(id));
    at = space != kNone ? Symbol(Symbol::Sort::Namespace, space) : lookupIn(id, inner, f, split != std::string_view::npos || wantType);
    if (split == std::string_view::npos) return at;
    rest.remove_prefix(split + 2);
  }
  return {};
}

ScopeIndex Linker::lookupScopeFor(FunctionIndex function) const {
  const Function& f = p_.functions[function];
  return f.owner != kNone ? p_.types[f.owner].scope : f.parent;
}

}  // namespace elmcart
