#include "program/batch.h"

#include "base/parallel.h"
#include "base/text.h"
#include "program/linker.h"

namespace elmcart {

Batch::Batch(Linker& linker, Where where)
    : variables(linker.p_.variables, where == Where::InPlace), typeUses(linker.p_.typeUses, where == Where::InPlace), typeArguments(linker.p_.typeArguments, where == Where::InPlace),
      k_(linker), p_(linker.p_), inPlace_(where == Where::InPlace), firstName_(inPlace_ ? kNone : static_cast<NameId>(linker.p_.names.size())),
      calls(inPlace_ ? p_.calls : ownCalls_), foreignCalls(inPlace_ ? p_.foreignCalls : ownForeignCalls_), creations(inPlace_ ? p_.creations : ownCreations_) {}

NameId Batch::intern(std::string_view text) {
  if (inPlace_) return p_.names.intern(text);
  if (NameId known = p_.names.find(text); known != 0 || text.empty()) return known;
  return firstName_ + names_.intern(text);
}

TypeUseId Batch::addUse(const TypeUse& use) {
  auto [entry, fresh] = known_.try_emplace(use, typeUses.size());
  if (fresh) typeUses.add(use);
  return entry->second;
}

TypeUseId Batch::addUse(TypeUse use, const std::vector<TypeUseId>& arguments) {
  use.firstArgument = arguments.empty() ? 0 : typeArguments.size();
  use.argumentCount = static_cast<uint32_t>(arguments.size());
  for (TypeUseId argument : arguments) typeArguments.add(argument);
  return addUse(use);
}

TypeUseId Batch::withModifiers(TypeUseId id, uint32_t addBits, uint32_t removeBits) {
  if (id == 0) return 0;
  TypeUse copy = typeUses[id];
  uint32_t bits = (copy.modifiers & ~removeBits) | addBits;
  if (bits == copy.modifiers) return id;
  copy.modifiers = bits;
  return addUse(copy);
}

TypeUseId Batch::writtenType(FileIndex f, NodeId typeRef, ScopeIndex scope, int depth) {
  const LoweredFile& file = p_.files[f];
  const Node& node = file[typeRef];
  constexpr int kDeepest = 20;
  if (depth > kDeepest) return 0;
  std::string_view name = file.name(node);
  TypeUse use;
  use.modifiers = node.modifiers & (kPointer | kReference | kRvalue | kConst | kPointeeConst | kArray);
  std::vector<TypeUseId> arguments;
  for (NodeId c : children(file, typeRef))
    if (file[c].role == Role::TypeArgument) arguments.push_back(writtenType(f, c, scope, depth + 1));
  if (name.empty()) return 0;
  Symbol symbol = lookupKnown(k_.global(f, node.name), scope, f, true);
  if (symbol.is(Symbol::Sort::Alias)) {
    const Linker::AliasDecl& alias = k_.aliases_[symbol.index()];
    const LoweredFile& aliasFile = p_.file(alias.place);
    NodeId target = aliasFile[alias.place.node].kind == Kind::Alias ? aliasFile.child(alias.place.node, Role::Type) : kNoNode;
    if (target != kNoNode && aliasFile.name(target) != name && depth < kDeepest) {
      TypeUseId behind = writtenType(alias.place.file, target, alias.scope, depth + 1);
      return withModifiers(behind, use.modifiers, 0);
    }
    if (target == kNoNode && aliasFile[alias.place.node].kind == Kind::Using) {
      Symbol real = k_.followAlias(symbol, f);
      NodeId renamed = aliasFile.child(alias.place.node, Role::Type);
      if (!real.known()) use.name = intern(aliasFile.name(renamed == kNoNode ? alias.place.node : renamed));
      symbol = real;
    } else {
      symbol = k_.followAlias(symbol, f);
    }
  }
  if (symbol.is(Symbol::Sort::Type)) {
    use.decl = symbol.index();
  } else if (symbol.is(Symbol::Sort::TypeParameter)) {
    use.parameter = true;
  }
  if (use.decl == kNone && use.name == 0) {
    // A library type: "string" after `using namespace std` is std::string.
    use.name = k_.global(f, node.name);
    if (!use.parameter && name.find("::") == std::string_view::npos) {
      for (ScopeIndex at = scope; at != kNone; at = p_.scopes[at].parent)
        for (auto [where, opened] : p_.scopes[at].usings)
          if ((where == kNone || where == f) && p_.names.text(opened) == "std" && p_.guarantees(f).typeTraits("std::" + std::string(name))) use.name = intern("std::" + std::string(name));
    }
  }
  if (use.decl != kNone) use.name = p_.types[use.decl].qualified;
  return addUse(use, arguments);
}

TypeUseId Batch::substitute(TypeUseId id, TypeUseId receiver, int depth) {
  if (id == 0 || receiver == 0 || depth > 8) return id;
  TypeUse use = typeUses[id];
  TypeUse from = typeUses[receiver];
  if (from.decl == kNone || from.argumentCount == 0) return id;
  const std::vector<NameId>& parameters = p_.types[from.decl].typeParameters;
  if (use.parameter) {
    for (uint32_t i = 0; i < parameters.size() && i < from.argumentCount; ++i)
      if (parameters[i] == use.name) return withModifiers(argument(from, i), use.modifiers, 0);
    return id;
  }
  if (use.argumentCount == 0) return id;
  std::vector<TypeUseId> arguments;
  bool changed = false;
  for (uint32_t i = 0; i < use.argumentCount; ++i) {
    TypeUseId before = argument(use, i);
    arguments.push_back(substitute(before, receiver, depth + 1));
    changed |= arguments.back() != before;
  }
  if (!changed) return id;
  return addUse(use, arguments);
}

Symbol Batch::lookupKnown(NameId name, ScopeIndex scope, FileIndex f, bool wantType) {
  constexpr uint64_t kScopes = 1u << 20, kNames = 1u << 24, kFiles = 1u << 18;
  if (scope >= kScopes || name >= kNames || f >= kFiles) return k_.lookup(text(name), scope, f, wantType);
  uint64_t key = (((uint64_t{scope} * kNames + name) * kFiles) + f) * 2 + (wantType ? 1 : 0);
  auto [entry, fresh] = remembered_.try_emplace(key);
  if (fresh) entry->second = k_.lookup(text(name), scope, f, wantType);
  return entry->second;
}

void Batch::setSymbol(Place place, Symbol symbol) {
  p_.links[place.file].symbol[place.node] = symbol;
  if (!inPlace_ && isAdded(symbol)) symbols_.push_back(place);
}

void Batch::setType(Place place, TypeUseId type) {
  p_.links[place.file].type[place.node] = type;
  if (!inPlace_ && type >= typeUses.start()) types_.push_back(place);
}

void Batch::setDeclaredType(VariableIndex variable, TypeUseId type) {
  variables[variable].type = type;
  if (!inPlace_) declared_.push_back(variable);
}

void Batch::setSignature(FunctionIndex function, TypeUseId result, std::vector<VariableIndex> parameters) {
  p_.functions[function].result = result;
  p_.functions[function].parameters = std::move(parameters);
  if (!inPlace_) signatures_.push_back(function);
}

void Batch::addMonitor(Place lock, TypeIndex type, bool ofClass) {
  if (inPlace_) setSymbol(lock, Symbol(Symbol::Sort::Variable, k_.monitorOf(type, ofClass)));
  else monitors_.push_back({lock, type, ofClass});
}

// Everything but the monitors, which batches share. What is written to here is this batch's alone.
void Batch::moveOver() {
  for (uint32_t i = 0; i < variables.added().size(); ++i) {
    Variable& variable = variables.added()[i];
    variable.name = shiftedName(variable.name);
    variable.qualified = shiftedName(variable.qualified);
    variable.type = shiftedType(variable.type);
    p_.variables[variables.start() + shifts_.variables + i] = std::move(variable);
  }
  for (uint32_t i = 0; i < typeUses.added().size(); ++i) {
    TypeUse& use = p_.typeUses[typeUses.start() + shifts_.typeUses + i] = typeUses.added()[i];
    use.name = shiftedName(use.name);
    if (use.firstArgument >= typeArguments.start()) use.firstArgument += shifts_.typeArguments;
  }
  for (uint32_t i = 0; i < typeArguments.added().size(); ++i) p_.typeArguments[typeArguments.start() + shifts_.typeArguments + i] = shiftedType(typeArguments.added()[i]);
  for (size_t i = 0; i < ownCalls_.size(); ++i) p_.calls[shifts_.calls + i] = ownCalls_[i];
  for (size_t i = 0; i < ownForeignCalls_.size(); ++i) {
    ForeignCall& call = p_.foreignCalls[shifts_.foreignCalls + i] = ownForeignCalls_[i];
    call.name = shiftedName(call.name);
  }
  for (size_t i = 0; i < ownCreations_.size(); ++i) {
    Creation& creation = p_.creations[shifts_.creations + i] = ownCreations_[i];
    creation.asVariable = shifted(creation.asVariable);
  }
  // A node may be there twice: all are read before any is written.
  std::vector<Symbol> symbols;
  for (Place place : symbols_) symbols.push_back(p_.symbolAt(place));
  for (size_t i = 0; i < symbols.size(); ++i)
    if (isAdded(symbols[i])) p_.links[symbols_[i].file].symbol[symbols_[i].node] = Symbol(Symbol::Sort::Variable, shifted(symbols[i].index()));
  std::vector<TypeUseId> types;
  for (Place place : types_) types.push_back(p_.typeAt(place));
  for (size_t i = 0; i < types.size(); ++i) p_.links[types_[i].file].type[types_[i].node] = shiftedType(types[i]);
  for (VariableIndex v : declared_) p_.variables[v].type = shiftedType(p_.variables[v].type);
  for (FunctionIndex i : signatures_) {
    Function& function = p_.functions[i];
    function.result = shiftedType(function.result);
    for (VariableIndex& parameter : function.parameters) parameter = shifted(parameter);
  }
}

void merge(Linker& linker, std::deque<Batch>& batches, unsigned jobs) {
  Program& p = linker.p_;
  Batch::Shifts sum;
  std::vector<size_t> sizes;
  sum.calls = static_cast<uint32_t>(p.calls.size());
  sum.foreignCalls = static_cast<uint32_t>(p.foreignCalls.size());
  sum.creations = static_cast<uint32_t>(p.creations.size());
  for (Batch& batch : batches) {
    batch.shifts_ = sum;
    batch.shifts_.names.resize(batch.names_.size());
    for (NameId n = 1; n < batch.names_.size(); ++n) batch.shifts_.names[n] = p.names.intern(batch.names_.text(n));
    sum.variables += static_cast<uint32_t>(batch.variables.added().size());
    sum.typeUses += static_cast<uint32_t>(batch.typeUses.added().size());
    sum.typeArguments += static_cast<uint32_t>(batch.typeArguments.added().size());
    sum.calls += static_cast<uint32_t>(batch.ownCalls_.size());
    sum.foreignCalls += static_cast<uint32_t>(batch.ownForeignCalls_.size());
    sum.creations += static_cast<uint32_t>(batch.ownCreations_.size());
    sizes.push_back(batch.variables.added().size() + batch.typeUses.added().size());
  }
  p.variables.resize(p.variables.size() + sum.variables);
  p.typeUses.resize(p.typeUses.size() + sum.typeUses);
  p.typeArguments.resize(p.typeArguments.size() + sum.typeArguments);
  p.calls.resize(sum.calls);
  p.foreignCalls.resize(sum.foreignCalls);
  p.creations.resize(sum.creations);
  forEachLargestFirst(sizes, jobs, [&](size_t i) { batches[i].moveOver(); });
  Batch shared(linker, Batch::Where::InPlace);
  for (const Batch& batch : batches)
    for (const Batch::Monitor& monitor : batch.monitors_) shared.addMonitor(monitor.lock, monitor.type, monitor.ofClass);
  batches.clear();
}

}  // namespace elmcart
