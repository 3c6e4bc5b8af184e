#include "base/text.h"
#include "program/linker.h"

namespace elmcart {

void Linker::add(ScopeIndex scope, NameId name, Symbol symbol) {
  // All that a scope declares under one name is looked through for each use of it. No written code
  // declares a name so often in one file; what a generator does beyond that is not found by its name.
  constexpr uint32_t kMostInOneFile = 256;
  Named& named = table_[uint64_t{scope} << 32 | name];
  FileIndex now = static_cast<FileIndex>(p_.files.size());
  if (named.file != now) named.inFile = 0;
  named.file = now;
  if (named.inFile++ < kMostInOneFile) named.symbols.push_back(symbol);
}

const Symbols* Linker::entries(ScopeIndex scope, NameId name) const {
  auto found = table_.find(uint64_t{scope} << 32 | name);
  return found == table_.end() ? nullptr : &found->second.symbols;
}

NameId Linker::qualify(ScopeIndex scope, NameId name, bool findable) {
  NameId outer = p_.scopes[scope].qualified;
  if (!outer) return name;
  ScopeIndex root = scope;
  while (p_.scopes[root].parent != kNone) root = p_.scopes[root].parent;
  std::string out(p_.names.text(outer));
  out += p_.scopes[root].language->separator;
  out += p_.names.text(name);
  return findable ? p_.names.intern(out) : p_.names.add(out);
}

void Linker::addAlias(Place place, ScopeIndex scope, NameId name) {
  add(scope, name, Symbol(Symbol::Sort::Alias, static_cast<uint32_t>(aliases_.size())));
  aliases_.push_back({place, scope, name});
}

Scope& Linker::addScope(ScopeIndex parent, NameId name) {
  // A module is called by its name without the ending that imports of it bear.
  std::string_view text = p_.names.text(name);
  bool ending = text.size() > 4 && (text.ends_with(".mjs") || text.ends_with(".cjs"));
  NameId shown = ending ? p_.names.intern(text.substr(0, text.size() - 4)) : name;
  NameId qualified = name ? qualify(parent, shown) : p_.scopes[parent].qualified;
  Scope& scope = p_.scopes.emplace_back();
  scope.parent = parent;
  scope.name = name;
  scope.qualified = qualified;
  return scope;
}

ScopeIndex Linker::namespaceScope(FileIndex f, ScopeIndex parent, std::string_view name, bool transparent) {
  // "a::b" opens one scope inside the other.
  size_t split = name.find("::");
  if (split != std::string_view::npos) {
    ScopeIndex outer = namespaceScope(f, parent, name.substr(0, split), false);
    return namespaceScope(f, outer, name.substr(split + 2), transparent);
  }
  NameId id = p_.names.intern(name);
  if (!name.empty()) {
    if (const auto* known = entries(parent, id))
      for (Symbol symbol : *known)
        if (symbol.is(Symbol::Sort::Namespace)) return symbol.index();
  } else {
    for (ScopeIndex inner : p_.scopes[parent].transparent)
      if (p_.scopes[inner].onlyIn == f) return inner;
  }
  ScopeIndex index = static_cast<ScopeIndex>(p_.scopes.size());
  Scope& scope = addScope(parent, id);
  if (name.empty()) scope.onlyIn = f;
  if (name.empty() || transparent) p_.scopes[parent].transparent.push_back(index);
  if (!name.empty()) add(parent, id, Symbol(Symbol::Sort::Namespace, index));
  return index;
}

// Languages of different families never see each other's declarations.
ScopeIndex Linker::addRoot(FileIndex f) {
  const Language* language = p_.languageOf[f];
  auto [entry, fresh] = roots_.emplace(familyOf(*language), static_cast<ScopeIndex>(p_.scopes.size()));
  if (fresh) {
    Scope& root = p_.scopes.emplace_back();
    root.sort = Scope::Sort::Global;
    root.language = language;
  }
  rootOfFile_.push_back(entry->second);
  moduleOfFile_.push_back(kNone);
  return entry->second;
}

void Linker::takeLastFile(bool test) {
  FileIndex f = static_cast<FileIndex>(p_.files.size() - 1);
  ofTests_.push_back(test);
  const LoweredFile& file = p_.files[f];
  p_.languageOf.push_back(languageById(file.language));
  FileLinks& links = p_.links.emplace_back();
  links.symbol.resize(file.nodes.size());
  links.type.resize(file.nodes.size());
  std::vector<NameId>& map = nameMap_.emplace_back(file.names.size());
  for (NameId n = 0; n < map.size(); ++n) map[n] = p_.names.internLasting(file.names.text(n));
  collect(f, 0, addRoot(f));
}

void Linker::indexModules() {
  for (ScopeIndex s = 0; s < p_.scopes.size(); ++s)
    if (p_.scopes[s].sort == Scope::Sort::Namespace && p_.scopes[s].name) modules_[std::string(p_.names.text(p_.scopes[s].name))].push_back(s);
}

void Linker::collect(FileIndex f, NodeId parent, ScopeIndex scope) {
  const LoweredFile& file = p_.files[f];
  for (NodeId c : children(file, parent)) {
    const Node& node = file[c];
    switch (node.kind) {
      case Kind::Namespace: {
        ScopeIndex space = namespaceScope(f, scope, file.name(node), node.has(kInline));
        if (file.parents[c] == 0 && moduleOfFile_[f] == kNone && p_.language(f).modulesApart) moduleOfFile_[f] = space;
        collect(f, c, space);
        break;
      }
      case Kind::Type: collectType(f, c, scope); break;
      case Kind::Function: collectFunction(f, c, scope); break;
      case Kind::Variable: collectVariable(f, c, scope); break;
      case Kind::Alias:
        addAlias({f, c}, scope, global(f, node.name));
        break;
      case Kind::Using:
        if (node.has(kWholeScope)) {
          p_.scopes[scope].passesOn |= node.has(kPublic);
          p_.scopes[scope].usings.emplace_back(p_.isHeader(f) || node.has(kPublic) ? kNone : f, global(f, node.name));
        } else {
          addAlias({f, c}, scope, p_.names.intern(file.child(c, Role::Type) == kNoNode ? lastPart(file.name(node)) : file.name(node)));
        }
        break;
      default: break;
    }
  }
}

void Linker::collectType(FileIndex f, NodeId nodeId, ScopeIndex scope) {
  const LoweredFile& file = p_.files[f];
  const Node& node = file[nodeId];
  std::string_view written = file.name(node);
  if (written.find("::") != std::string_view::npos) {  // class Outer::Inner { … };
    pendingTypes_.push_back({{f, nodeId}, scope});
    return;
  }
  NameId name = global(f, node.name);
  bool defines = node.has(kDefinition);
  if (node.has(kPart)) {  // joined when all classes are known
    pendingParts_.push_back({{f, nodeId}, scope});
    return;
  }
  FileIndex onlyIn = kNone;
  for (ScopeIndex at = scope; at != kNone; at = p_.scopes[at].parent)
    if (p_.scopes[at].onlyIn != kNone) onlyIn = p_.scopes[at].onlyIn;
  TypeIndex index = kNone;
  if (name) {
    if (const auto* known = entries(scope, name)) {
      for (Symbol symbol : *known) {
        if (!symbol.is(Symbol::Sort::Type)) continue;
        const TypeDecl& other = p_.types[symbol.index()];
        if (!defines || !other.definition.known()) {
          index = symbol.index();
          break;
        }
      }
    }
  }
  if (index == kNone) {
    index = static_cast<TypeIndex>(p_.types.size());
    TypeDecl& type = p_.types.emplace_back();
    type.name = name;
    type.qualified = qualify(scope, name);
    type.parent = scope;
    type.onlyIn = onlyIn;
    type.scope = static_cast<ScopeIndex>(p_.scopes.size());
    Scope& own = addScope(scope, name);
    own.sort = Scope::Sort::Type;
    own.type = index;
    if (name) add(scope, name, Symbol(Symbol::Sort::Type, index));
  }
  p_.links[f].symbol[nodeId] = Symbol(Symbol::Sort::Type, index);
  if (!defines) {
    p_.types[index].declarations.push_back({f, nodeId});
    return;
  }
  p_.types[index].definition = {f, nodeId};
  p_.types[index].form = static_cast<TypeForm>(node.detail);
  p_.types[index].modifiers = node.modifiers;
  ScopeIndex own = p_.types[index].scope;
  for (NodeId c : children(file, nodeId)) {
    const Node& child = file[c];
    if (child.kind == Kind::TypeRef && child.role == Role::TypeParameter) {
      p_.types[index].typeParameters.push_back(global(f, child.name));
      add(own, global(f, child.name), Symbol(Symbol::Sort::TypeParameter, child.name));
    } else if (child.kind == Kind::TypeRef && child.has(kFriend)) {
      p_.types[index].friends.push_back(p_.names.intern(lastPart(file.name(child))));
    } else if (child.kind == Kind::Enumerator) {
      add(own, global(f, child.name), Symbol(Symbol::Sort::Enumerator, index));
      add(scope, global(f, child.name), Symbol(Symbol::Sort::Enumerator, index));
    }
  }
  typeScopes_.push_back({{f, nodeId}, scope});
  // An unnamed struct or union that declares no variable lends its fields to the class around it.
  collect(f, nodeId, own);
}

uint32_t Linker::countParameters(Place place) const {
  uint32_t count = 0;
  const LoweredFile& file = p_.file(place);
  for (NodeId c : children(file, place.node)) count += file[c].kind == Kind::Parameter;
  return count;
}

FunctionIndex Linker::addFunction(Place place, ScopeIndex scope, NameId name) {
  const Node& node = p_.node(place);
  FunctionIndex index = static_cast<FunctionIndex>(p_.functions.size());
  Function& function = p_.functions.emplace_back();
  function.name = name;
  function.qualified = qualify(scope, name, false);
  function.form = static_cast<FunctionForm>(node.detail);
  function.parent = scope;
  function.owner = p_.scopes[scope].sort == Scope::Sort::Type ? p_.scopes[scope].type : kNone;
  for (ScopeIndex at = scope; at != kNone; at = p_.scopes[at].parent)
    if (p_.scopes[at].onlyIn != kNone) function.onlyIn = p_.scopes[at].onlyIn;
  if (function.owner == kNone && node.has(kStatic) && !p_.isHeader(place.file)) function.onlyIn = place.file;
  if (function.owner != kNone) p_.types[function.owner].methods.push_back(index);
  add(scope, name, Symbol(Symbol::Sort::Function, index));
  mergeFunction(index, place);
  return index;
}

void Linker::mergeFunction(FunctionIndex index, Place place) {
  Function& function = p_.functions[index];
  const LoweredFile& file = p_.file(place);
  const Node& node = file[place.node];
  function.modifiers |= node.modifiers & ~kDefinition;
  function.declarations.push_back(place);
  if (node.has(kDefinition) && !function.definition.known()) {
    function.definition = place;
    function.modifiers |= kDefinition;
  }
  uint32_t least = 0, most = 0;
  for (NodeId c : children(file, place.node)) {
    const Node& child = file[c];
    if (child.kind == Kind::Parameter) {
      ++most;
      if (child.has(kPack)) most += 100;
      else if (file.child(c, Role::Initialiser) == kNoNode) ++least;
    }
    if (child.kind == Kind::TypeRef && child.role == Role::TypeParameter && function.typeParameters.size() < 16)
      function.typeParameters.push_back(global(place.file, child.name));
  }
  function.mostArguments = std::max(function.mostArguments, most);
  // Defaults stand in one of the declarations only.
  function.leastArguments = function.declarations.size() == 1 ? least : std::min(function.leastArguments, least);
  p_.links[place.file].symbol[place.node] = Symbol(Symbol::Sort::Function, index);
}

void Linker::collectFunction(FileIndex f, NodeId nodeId, ScopeIndex scope) {
  const LoweredFile& file = p_.files[f];
  const Node& node = file[nodeId];
  std::string_view written = file.name(node);
  if (node.has(kFriend) && !node.has(kDefinition)) return;
  if (scopePart(written).size() > 0 && written.find('(') == std::string_view::npos) {
    pendingFunctions_.push_back({{f, nodeId}, scope});
    return;
  }
  NameId name = global(f, node.name);
  ScopeIndex home = scope;
  if (node.has(kFriend) && p_.scopes[scope].sort == Scope::Sort::Type) home = p_.scopes[scope].parent;
  // A declaration and a definition of the same free function are one function,
  // and those of a method that stand in different parts of its class.
  if (p_.scopes[home].sort != Scope::Sort::Type || collectingPart_) {
    if (const auto* known = entries(home, name)) {
      uint32_t count = countParameters({f, nodeId});
      for (Symbol symbol : *known) {
        if (!symbol.is(Symbol::Sort::Function)) continue;
        Function& other = p_.functions[symbol.index()];
        if (node.has(kDefinition) && other.definition.known()) continue;
        if (other.onlyIn != kNone && other.onlyIn != f) continue;
        if (!collectingPart_ && node.has(kStatic) && !p_.isHeader(f) && other.onlyIn != f) continue;
        if (collectingPart_ && (other.modifiers ^ node.modifiers) & kStatic) continue;
        if (countParameters(other.declarations.front()) != count) continue;
        mergeFunction(symbol.index(), {f, nodeId});
        return;
      }
    }
  }
  addFunction({f, nodeId}, home, name);
}

void Linker::collectVariable(FileIndex f, NodeId nodeId, ScopeIndex scope) {
  const LoweredFile& file = p_.files[f];
  const Node& node = file[nodeId];
  if (!scopePart(file.name(node)).empty()) {
    pendingVariables_.push_back({{f, nodeId}, scope});
    return;
  }
  NameId name = global(f, node.name);
  ScopeIndex written = scope;
  if (node.has(kOfNoScope)) scope = rootOf(f);
  bool inType = p_.scopes[scope].sort == Scope::Sort::Type;
  FileIndex onlyIn = kNone;
  for (ScopeIndex at = scope; at != kNone; at = p_.scopes[at].parent)
    if (p_.scopes[at].onlyIn != kNone) onlyIn = p_.scopes[at].onlyIn;
  if (!inType) {
    // Internal linkage, C++ [basic.link]/3: static, and const without extern.
    if (node.has(kStatic) && !p_.isHeader(f)) onlyIn = f;
    if (const auto* known = entries(scope, name)) {
      for (Symbol symbol : *known) {
        if (!symbol.is(Symbol::Sort::Variable)) continue;
        Variable& other = p_.variables[symbol.index()];
        if (other.onlyIn != onlyIn) continue;
        if (other.definition.known() && node.has(kDefinition)) {
          if (!ofTests_[other.definition.file] || ofTests_[f]) continue;
          Place ofTest = std::exchange(other.definition, Place{f, nodeId});
          std::replace(other.declarations.begin(), other.declarations.end(), ofTest, other.definition);
          other.modifiers = node.modifiers;
          p_.links[f].symbol[nodeId] = symbol;
          addVariable(ofTest, scope, name, onlyIn);
          return;
        }
        other.declarations.push_back({f, nodeId});
        other.modifiers |= node.modifiers & ~(kDefinition | kExtern);
        if (node.has(kDefinition)) {
          other.definition = {f, nodeId};
          other.modifiers &= ~kExtern;
        }
        p_.links[f].symbol[nodeId] = symbol;
        return;
      }
    }
  }
  addVariable({f, nodeId}, scope, name, onlyIn);
  p_.variables.back().parent = written;  // what its initialiser names is looked up from there
}

void Linker::addVariable(Place place, ScopeIndex scope, NameId name, FileIndex onlyIn) {
  auto [f, nodeId] = place;
  const Node& node = p_.node(place);
  bool inType = p_.scopes[scope].sort == Scope::Sort::Type;
  VariableIndex index = static_cast<VariableIndex>(p_.variables.size());
  Variable& variable = p_.variables.emplace_back();
  variable.name = name;
  variable.qualified = qualify(scope, name, false);
  variable.modifiers = node.modifiers;
  variable.form = static_cast<VariableForm>(node.detail);
  variable.parent = scope;
  variable.onlyIn = onlyIn;
  variable.declarations.push_back({f, nodeId});
  if (node.has(kDefinition)) variable.definition = {f, nodeId};
  if (inType) {
    variable.owner = p_.scopes[scope].type;
    bool classLevel = node.has(kStatic) || (node.has(kConstant) && node.has(kStatic));
    variable.storage = classLevel ? Storage::StaticField : Storage::Field;
    (classLevel ? p_.types[variable.owner].statics : p_.types[variable.owner].fields).push_back(index);
  } else {
    variable.storage = Storage::Global;
  }
  add(scope, name, Symbol(Symbol::Sort::Variable, index));
  p_.links[f].symbol[nodeId] = Symbol(Symbol::Sort::Variable, index);
}

// From here on the node bears its last name only, like one written inside.
void Linker::renameLast(Place place) {
  LoweredFile& file = p_.files[place.file];
  NameId& name = file.nodes[place.node].name;
  name = file.names.intern(std::string(lastPart(file.names.text(name))));
  nameMap_[place.file].resize(file.names.size());
  nameMap_[place.file][name] = p_.names.intern(file.names.text(name));
}

// A part of a class that is written in several places: its members join the
// others; a part whose class stands nowhere else is the class.
void Linker::collectPart(const Pending& part) {
  FileIndex f = part.place.file;
  LoweredFile& file = p_.files[f];
  NodeId nodeId = part.place.node;
  TypeIndex index = kNone;
  if (const auto* known = entries(part.scope, global(f, file[nodeId].name)))
    for (Symbol symbol : *known)
      if (symbol.is(Symbol::Sort::Type) && index == kNone) index = symbol.index();
  if (index == kNone) {
    file.nodes[nodeId].modifiers &= ~kPart;
    collectType(f, nodeId, part.scope);
    return;
  }
  p_.links[f].symbol[nodeId] = Symbol(Symbol::Sort::Type, index);
  TypeDecl& type = p_.types[index];
  if (!type.definition.known()) {
    type.definition = part.place;
    type.form = static_cast<TypeForm>(file[nodeId].detail);
  } else {
    type.declarations.push_back(part.place);
  }
  type.modifiers |= file[nodeId].modifiers & ~kPart;
  typeScopes_.push_back({part.place, part.scope});
  collectingPart_ = true;
  collect(f, nodeId, type.scope);
  collectingPart_ = false;
}

void Linker::joinPending() {
  for (size_t i = 0; i < pendingParts_.size(); ++i) collectPart(pendingParts_[i]);
  for (const Pending& pending : pendingTypes_) {
    std::string_view written = p_.nameOf(pending.place);
    Symbol outer = lookup(scopePart(written), pending.scope, pending.place.file, true);
    ScopeIndex home = scopeOf(outer, pending.place.file);
    if (home == kNone) home = pending.scope;
    renameLast(pending.place);
    collectType(pending.place.file, pending.place.node, home);
  }
  for (const Pending& pending : pendingFunctions_) {
    std::string_view written = p_.nameOf(pending.place);
    NameId last = p_.names.intern(lastPart(written));
    Symbol outer = lookup(scopePart(written), pending.scope, pending.place.file, true);
    ScopeIndex home = scopeOf(outer, pending.place.file);
    if (home == kNone) {
      // The class is not in the tree. What a file's extension adds to it stands together.
      if (p_.language(pending.place.file).dotted) {
        ScopeIndex space = namespaceScope(pending.place.file, pending.scope, scopePart(written), false);
        renameLast(pending.place);
        p_.functions[addFunction(pending.place, space, last)].ofClassElsewhere = true;
      } else {
        addFunction(pending.place, pending.scope, p_.names.intern(written));
      }
      continue;
    }
    const Node& node = p_.node(pending.place);
    uint32_t count = countParameters(pending.place);
    FunctionIndex match = kNone, sameCount = kNone;
    if (const auto* known = entries(home, last)) {
      for (Symbol symbol : *known) {
        if (!symbol.is(Symbol::Sort::Function)) continue;
        const Function& other = p_.functions[symbol.index()];
        if (other.definition.known() && node.has(kDefinition)) continue;
        if (countParameters(other.declarations.front()) != count) continue;
        if (sameCount == kNone) sameCount = symbol.index();
        // Overloads with as many parameters: compare the written types and constness.
        const LoweredFile& a = p_.file(other.declarations.front());
        const LoweredFile& b = p_.file(pending.place);
        bool same = ((p_.node(other.declarations.front()).modifiers ^ node.modifiers) & kConst) == 0;
        std::vector<std::string> left, right;
        auto types = [](const LoweredFile& file, NodeId function, std::vector<std::string>& out) {
          for (NodeId c : children(file, function)) {
            if (file[c].kind != Kind::Parameter) continue;
            NodeId type = file.child(c, Role::Type);
            out.push_back(type == kNoNode ? "" : std::string(lastPart(file.name(type))) + std::to_string(file[type].modifiers & (kPointer | kReference | kRvalue | kPointeeConst)));
          }
        };
        types(a, other.declarations.front().node, left);
        types(b, pending.place.node, right);
        if (same && left == right && match == kNone) match = symbol.index();
      }
    }
    if (match == kNone) match = sameCount;
    if (match != kNone) mergeFunction(match, pending.place);
    else addFunction(pending.place, home, last);
  }
  for (const Pending& pending : pendingVariables_) {
    std::string_view written = p_.nameOf(pending.place);
    NameId last = p_.names.intern(lastPart(written));
    Symbol outer = lookup(scopePart(written), pending.scope, pending.place.file, true);
    ScopeIndex home = scopeOf(outer, pending.place.file);
    const auto* known = home == kNone ? nullptr : entries(home, last);
    if (!known && p_.language(pending.place.file).dotted) {
      // An extension brings it: into its class, or into one that is not in the tree.
      bool isElsewhere = home == kNone || p_.scopes[home].type == kNone;
      if (home == kNone) home = namespaceScope(pending.place.file, pending.scope, scopePart(written), false);
      renameLast(pending.place);
      collectVariable(pending.place.file, pending.place.node, home);
      p_.variables.back().ofClassElsewhere = isElsewhere;
      continue;
    }
    if (!known) continue;
    for (Symbol symbol : *known) {
      if (!symbol.is(Symbol::Sort::Variable)) continue;
      Variable& variable = p_.variables[symbol.index()];
      variable.declarations.push_back(pending.place);
      variable.definition = pending.place;
      p_.links[pending.place.file].symbol[pending.place.node] = symbol;
      break;
    }
  }
}

void Linker::fillSignature(Batch& batch, FunctionIndex index) {
  const Function& function = p_.functions[index];
  Place place = function.home();
  const LoweredFile& file = p_.file(place);
  ScopeIndex scope = lookupScopeFor(index);
  NodeId type = file.child(place.node, Role::Type);
  TypeUseId result = type == kNoNode ? 0 : batch.writtenType(place.file, type, scope);
  std::vector<VariableIndex> parameters;
  for (NodeId c : children(file, place.node)) {
    if (file[c].kind != Kind::Parameter) continue;
    NodeId written = file.child(c, Role::Type);
    TypeUseId use = written == kNoNode ? 0 : batch.writtenType(place.file, written, scope);
    Variable& variable = batch.variables.add();
    variable.name = global(place.file, file[c].name);
    variable.qualified = variable.name;
    variable.storage = Storage::Parameter;
    variable.modifiers = file[c].modifiers;
    variable.function = index;
    variable.definition = {place.file, c};
    variable.declarations.push_back({place.file, c});
    variable.type = use;
    parameters.push_back(batch.variables.size() - 1);
    batch.setSymbol({place.file, c}, Symbol(Symbol::Sort::Variable, parameters.back()));
  }
  batch.setSignature(index, result, std::move(parameters));
}

// A class can lead back to itself by its bases: legally where an interface is read off a class
// (TypeScript), and in text that no compiler takes. The base that closes a circle is kept as it
// is written and leads nowhere, so that no walk over bases can go round.
void Linker::breakCircles() {
  enum class State : uint8_t { New, Open, Done };
  std::vector<State> states(p_.types.size(), State::New);
  std::vector<std::pair<TypeIndex, size_t>> path;  // a class, and which of its bases is next
  for (TypeIndex start = 0; start < p_.types.size(); ++start) {
    if (states[start] == State::New) path.emplace_back(start, 0);
    while (!path.empty()) {
      auto& [type, next] = path.back();
      states[type] = State::Open;
      std::vector<Base>& bases = p_.types[type].bases;
      if (next == bases.size()) {
        states[type] = State::Done;
        path.pop_back();
        continue;
      }
      Base& base = bases[next++];
      if (base.type == kNone) continue;
      if (states[base.type] == State::Open) base.type = kNone;
      else if (states[base.type] == State::New) path.emplace_back(base.type, 0);
    }
  }
}

void Linker::resolveDeclaredTypes() {
  // One after the other: what a base inherits may name the next one's.
  Batch bases(*this, Batch::Where::InPlace);
  for (auto& [place, scope] : typeScopes_) {
    const LoweredFile& file = p_.file(place);
    TypeIndex index = p_.links[place.file].symbol[place.node].index();
    for (NodeId c : children(file, place.node)) {
      if (file[c].role == Role::Annotation) p_.links[place.file].symbol[c] = followAlias(lookup(file.name(c), scope, place.file), place.file);
      if (file[c].role != Role::Base) continue;
      Base base;
      base.use = bases.writtenType(place.file, c, p_.types[index].scope);
      base.type = p_.use(base.use).decl;
      base.visibility = file[c].modifiers & (kPublic | kProtected | kPrivate);
      if (base.type == index) base.type = kNone;
      if (base.type == kNone) p_.types[index].hasUnknownBase = true;
      p_.types[index].bases.push_back(base);
    }
  }
  breakCircles();
  for (TypeIndex t = 0; t < p_.types.size(); ++t)
    for (const Base& base : p_.types[t].bases)
      if (base.type != kNone) p_.types[base.type].derived.push_back(t);
  inBatches(p_.variables.size(), [&](Batch& batch, VariableIndex v) {
    Place place = p_.variables[v].declarations.front();
    NodeId type = p_.file(place).child(place.node, Role::Type);
    if (type != kNoNode) batch.setDeclaredType(v, batch.writtenType(place.file, type, p_.variables[v].parent));
  });
  inBatches(p_.functions.size(), [&](Batch& batch, FunctionIndex i) { fillSignature(batch, i); });
}

}  // namespace elmcart
