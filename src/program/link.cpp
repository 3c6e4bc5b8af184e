// The order of the linker's work, and what of it is done by several threads.
#include <algorithm>

#include "base/parallel.h"
#include "base/text.h"
#include "languages/parse_guard.h"
#include "program/body_walk.h"
#include "program/generated.h"
#include "program/linker.h"

namespace elmcart {

// Types, aliases and using directives inside function bodies.
void Linker::collectLocalTypes() {
  std::vector<std::vector<NodeId>> found(p_.files.size());
  p_.forEachFile(jobs_, [&](FileIndex f) {
    const LoweredFile& file = p_.files[f];
    for (NodeId n = 1; n < file.nodes.size(); ++n) {
      const Node& node = file[n];
      if (node.kind != Kind::Type && node.kind != Kind::Alias && node.kind != Kind::Using) continue;
      // A class without a name stands in its creation; that may be the initialiser of a field.
      Kind around = file[file.parents[n]].kind;
      if (around == Kind::Block || (node.kind == Kind::Type && around == Kind::Create)) found[f].push_back(n);
    }
  });
  for (FileIndex f = 0; f < p_.files.size(); ++f)
    for (NodeId n : found[f]) collectLocalType(f, n);
}

void Linker::collectLocalType(FileIndex f, NodeId n) {
  const LoweredFile& file = p_.files[f];
  Kind kind = file[n].kind;
  NodeId up = file.parents[n];
  bool inCreation = kind == Kind::Type && file[up].kind == Kind::Create;
  while (up != kNoNode && file[up].kind != Kind::Function && !(inCreation && file[up].kind == Kind::Type)) up = file.parents[up];
  if (up != kNoNode && file[up].kind == Kind::Type) {
    if (Symbol around = p_.links[f].symbol[up]; around.is(Symbol::Sort::Type)) collectType(f, n, p_.types[around.index()].scope);
    return;
  }
  Symbol owner = up == kNoNode ? Symbol{} : p_.links[f].symbol[up];
  if (!owner.is(Symbol::Sort::Function)) return;
  auto [entry, fresh] = localScopes_.emplace(owner.index(), static_cast<ScopeIndex>(p_.scopes.size()));
  ScopeIndex local = entry->second;
  if (fresh) addScope(lookupScopeFor(owner.index()), p_.functions[owner.index()].name).onlyIn = f;
  NameId name = global(f, file[n].name);
  if (kind == Kind::Type) {
    collectType(f, n, local);
  } else if (kind == Kind::Using && file[n].has(kWholeScope)) {
    p_.scopes[local].usings.emplace_back(f, name);
  } else {
    bool renamed = file.child(n, Role::Type) != kNoNode;
    addAlias({f, n}, local, renamed ? name : p_.names.intern(lastPart(file.name(n))));
  }
}

// About as many as there will be: what is grown into is moved again and again.
void Linker::expect(size_t bytes) {
  table_.reserve(bytes / 400);
  p_.functions.reserve(bytes / 800);
  p_.variables.reserve(bytes / 250);
}

void Linker::run() {
  indexModules();
  resolveUsings(0);
  joinPending();
  forgetAliases();  // what they stand for may only now be known
  ScopeIndex firstLocal = static_cast<ScopeIndex>(p_.scopes.size());
  collectLocalTypes();
  resolveUsings(firstLocal);
  forgetAliases();
  resolveAliases();
  resolveDeclaredTypes();
  inferTypes();
  walkBodies();
  walkInitialisers();
  index();
}

// From here on they are only read.
void Linker::resolveAliases() {
  auto follow = [&](uint32_t i) { (void)followAlias(Symbol(Symbol::Sort::Alias, i), aliases_[i].place.file); };
  for (uint32_t i = 0; i < aliases_.size(); ++i) follow(i);
  // A long chain that is named from its far end is known from the other end on.
  for (uint32_t i = static_cast<uint32_t>(aliasStates_.size()); i-- > 0;)
    if (aliasStates_[i] != AliasState::Known) follow(i);
  // From here on several threads ask: nothing is worked out any more.
  std::fill(aliasStates_.begin(), aliasStates_.end(), AliasState::Known);
}

void Linker::inBatches(size_t count, const std::function<void(Batch&, uint32_t)>& work) {
  constexpr size_t kEach = 256;
  std::deque<Batch> batches;
  for (size_t from = 0; from < count; from += kEach) batches.emplace_back(*this, Batch::Where::Aside);
  forEachPiece(count, kEach, jobs_, [&](size_t from, size_t to) {
    Batch& batch = batches[from / kEach];
    batch.expect(kEach);
    for (size_t i = from; i < to; ++i) work(batch, static_cast<uint32_t>(i));
    batch.forget();
  });
  merge(*this, batches, jobs_);
}

void Linker::inBatches(size_t count, const std::function<bool(uint32_t)>& alone, const std::function<void(Batch&, uint32_t)>& work) {
  inBatches(count, [&](Batch& batch, uint32_t i) {
    if (!alone(i)) work(batch, i);
  });
  Batch batch(*this, Batch::Where::InPlace);
  for (uint32_t i = 0; i < count; ++i)
    if (alone(i)) work(batch, i);
}

// Where assignments tell what a variable is, a body may change what the next one
// finds: those are walked one after the other.
bool Linker::infers(FunctionIndex function) const { return p_.language(p_.functions[function].declarations.front().file).infersTypes; }

void Linker::walkBodies() {
  inBatches(p_.functions.size(), [&](FunctionIndex i) { return infers(i); }, [&](Batch& batch, FunctionIndex i) { walkBody(batch, i); });
}

void Linker::walkBody(Batch& batch, FunctionIndex i) {
  WorkingOn now("linking", p_.path(p_.functions[i].home()));
  // Default arguments may stand in declarations without a body.
  for (Place place : p_.functions[i].declarations) {
    if (place == p_.functions[i].definition) continue;
    for (NodeId c : children(p_.file(place), place.node)) {
      if (p_.file(place)[c].kind != Kind::Parameter) continue;
      NodeId value = p_.file(place).child(c, Role::Initialiser);
      if (value != kNoNode) walkInitialiser(*this, batch, {place.file, value}, lookupScopeFor(i), i, kNone);
    }
  }
  if (!p_.functions[i].definition.known()) return;
  ScopeIndex scope = bodyScope(i);
  // TEST_F(Fixture, Name): the body sees the fixture's members. A fixture is a
  // framework's class in the end; TEST(Book, …) may just bear a class's name.
  std::string_view name = p_.text(p_.functions[i].name);
  size_t open = name.find('(');
  if (p_.functions[i].owner == kNone && open != std::string_view::npos && (p_.functions[i].modifiers & kInMacro)) {
    std::string first(trim(name.substr(open + 1, name.find_first_of(",)", open) - open - 1)));
    Symbol fixture = lookup(first, scope, p_.functions[i].definition.file, true);
    bool framework = false;
    if (fixture.is(Symbol::Sort::Type)) framework = p_.anyBase(fixture.index(), [&](TypeIndex t, const Base*) { return p_.types[t].hasUnknownBase; });
    if (framework) {
      if (!localScopes_.count(i)) scope = p_.types[fixture.index()].scope;
      p_.functions[i].fixture = fixture.index();
    }
  }
  walkFunction(*this, batch, i, scope);
}

void Linker::walkInitialisers() {
  auto outlives = [&](VariableIndex v) {
    Storage storage = p_.variables[v].storage;
    return storage == Storage::Global || storage == Storage::StaticField || storage == Storage::Field;
  };
  // The value of one that is not told may tell what the next one is.
  auto alone = [&](VariableIndex v) { return untold(v) || p_.language(p_.variables[v].declarations.front().file).infersTypes; };
  inBatches(p_.variables.size(), alone, [&](Batch& batch, VariableIndex v) {
    if (outlives(v)) walkValueOf(batch, v);
  });
}

bool Linker::untold(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  return variable.type == 0 ? p_.language(variable.declarations.front().file).dotted : p_.text(p_.use(variable.type).name) == "auto";
}

// auto&, const auto*: what is deduced, with what is written beside it ([dcl.spec.auto]).
TypeUseId Linker::asDeduced(Batch& batch, Place variable, TypeUseId value) const {
  NodeId written = p_.file(variable).child(variable.node, Role::Type);
  uint32_t wanted = written == kNoNode ? 0 : p_.file(variable)[written].modifiers & (kPointer | kReference | kPointeeConst | kConst);
  return batch.withModifiers(value, wanted, wanted & kReference ? 0 : uint32_t{kReference});
}

void Linker::walkValueOf(Batch& batch, VariableIndex v) {
  const Variable& variable = p_.variables[v];
  Place place = variable.home();
  NodeId value = p_.file(place).child(place.node, Role::Initialiser);
  ScopeIndex scope = valueScope(v);
  size_t creationsBefore = batch.creations.size();
  if (value != kNoNode) {
    bool tells = untold(v);
    TypeUseId type = walkInitialiser(*this, batch, {place.file, value}, scope, kNone, v);
    if (tells) p_.variables[v].type = asDeduced(batch, place, type);
    for (size_t i = creationsBefore; i < batch.creations.size(); ++i)
      if (batch.creations[i].place == Place{place.file, value}) batch.creations[i].asVariable = v;
    return;
  }
  const TypeUse use = p_.use(p_.variables[v].type);
  if (!p_.variables[v].definition.known() || use.has(kPointer | kReference | kArray) || (p_.variables[v].modifiers & kExtern)) return;
  if (use.decl != kNone) {
    Creation creation;
    creation.type = use.decl;
    creation.place = place;
    creation.inInitialiserOf = v;
    creation.asVariable = v;
    for (FunctionIndex m : p_.types[use.decl].methods)
      if (p_.functions[m].form == FunctionForm::Constructor && p_.functions[m].leastArguments == 0) creation.constructor = m;
    if (creation.constructor != kNone) batch.calls.push_back({creation.constructor, place, kNone, v});
    batch.creations.push_back(creation);
  } else if (use.name) {
    batch.foreignCalls.push_back({use.name, place, kNone, v});
  }
}

VariableIndex Linker::monitorOf(TypeIndex type, bool ofClass) {
  auto [entry, fresh] = monitors_.emplace(std::make_pair(type, ofClass), static_cast<VariableIndex>(p_.variables.size()));
  if (!fresh) return entry->second;
  Variable& variable = p_.variables.emplace_back();
  variable.name = p_.names.intern((ofClass ? "the class " : "the object's own lock, ") + std::string(p_.text(p_.types[type].name)));
  variable.qualified = variable.name;
  variable.owner = type;
  if (!ofClass) variable.storage = Storage::Field;  // each object has one
  variable.modifiers = kConst;
  variable.definition = p_.types[type].definition;
  variable.declarations.push_back(variable.definition);
  return entry->second;
}

// The initialisers of variables without a written type tell what they are. In
// languages without written types, two rounds over the bodies tell what is
// assigned to variables and returned by functions; everything else that the
// rounds note is dropped again.
void Linker::inferTypes() {
  size_t functions = p_.functions.size(), variables = p_.variables.size();
  auto drop = [&] {
    p_.calls.clear();
    p_.foreignCalls.clear();
    p_.creations.clear();
    p_.variables.resize(variables);
    monitors_.clear();
  };
  Batch batch(*this, Batch::Where::InPlace);
  for (int round = 0; round < 2; ++round) {
    for (VariableIndex v = 0; v < variables; ++v) {
      Place place = p_.variables[v].declarations.front();
      if (p_.variables[v].type != 0 || !p_.language(place.file).dotted || p_.variables[v].storage == Storage::Parameter) continue;
      NodeId value = p_.file(place).child(place.node, Role::Initialiser);
      if (value == kNoNode) continue;
      TypeUseId type = walkInitialiser(*this, batch, {place.file, value}, valueScope(v), kNone, v);
      drop();
      p_.variables[v].type = type;
    }
    for (FunctionIndex i = 0; i < functions; ++i) {
      Place place = p_.functions[i].definition;
      if (!place.known() || !p_.language(place.file).infersTypes) continue;
      walkFunction(*this, batch, i, bodyScope(i));
      drop();
    }
  }
}

// The scope that the names in a variable's value are looked up from.
ScopeIndex Linker::valueScope(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  return variable.owner != kNone ? p_.types[variable.owner].scope : variable.parent;
}

// The scope that the names in a function's body are looked up from.
ScopeIndex Linker::bodyScope(FunctionIndex function) {
  auto local = localScopes_.find(function);
  return local != localScopes_.end() ? local->second : lookupScopeFor(function);
}

Linking::Linking(std::string root, size_t files, size_t bytes, unsigned jobs) : linker_(std::make_unique<Linker>(program_, jobs)) {
  program_.root = std::move(root);
  program_.files.reserve(files);
  program_.typeUses.emplace_back();
  linker_->expect(bytes);
}

Linking::~Linking() = default;

void Linking::add(LoweredFile file, bool test) {
  program_.files.push_back(std::move(file));
  linker_->takeLastFile(test);
}

Program Linking::finish() {
  markCompiled(program_.files);
  linker_->run();
  return std::move(program_);
}

Program link(std::string root, std::vector<LoweredFile> files, unsigned jobs) {
  size_t bytes = 0;
  for (const LoweredFile& file : files) bytes += file.textSize;
  Linking linking(std::move(root), files.size(), bytes, jobs);
  for (LoweredFile& file : files) linking.add(std::move(file));
  return linking.finish();
}

}  // namespace elmcart
