#include "program/body_walk.h"

#include <algorithm>

#include "base/text.h"
#include "program/linker.h"
#include "program/overloads.h"

namespace elmcart {

class BodyWalk {
 public:
  BodyWalk(Linker& linker, Batch& batch, FileIndex f, ScopeIndex scope, FunctionIndex in, VariableIndex inInitialiserOf)
      : k_(linker), p_(linker.p_), b_(batch), f_(f), scope_(scope), in_(in), of_(inInitialiserOf), overloads_(linker, batch, f) {}

  BodyWalk(Linker& linker, Batch& batch, FunctionIndex in, ScopeIndex scope) : BodyWalk(linker, batch, linker.p_.functions[in].definition.file, scope, in, kNone) {}

  void function() {
    const Function& fn = p_.functions[in_];
    NodeId node = fn.definition.node;
    const LoweredFile& file = p_.files[f_];
    size_t i = 0;
    for (NodeId c : children(file, node)) {
      if (file[c].kind != Kind::Parameter || i >= fn.parameters.size()) continue;
      VariableIndex parameter = fn.parameters[i++];
      locals_.emplace_back(b_.variables[parameter].name, parameter);
      NodeId value = file.child(c, Role::Initialiser);
      if (value != kNoNode) visit(value);
    }
    for (NodeId c : children(file, node)) {
      if (file[c].kind == Kind::Variable) visit(c);  // the parts of a parameter that is taken apart
      if (file[c].kind == Kind::FieldInit) fieldInit(c, fn);
      if (file[c].role == Role::Body) visit(c);
    }
  }

  TypeUseId initialiser(NodeId value) { return visit(value); }

 private:
  const LoweredFile& file() const { return p_.files[f_]; }
  const Node& node(NodeId id) const { return p_.files[f_].nodes[id]; }
  NameId global(NodeId id) const { return k_.global(f_, node(id).name); }
  void setType(NodeId id, TypeUseId type) { b_.setType({f_, id}, type); }
  void setSymbol(NodeId id, Symbol symbol) { b_.setSymbol({f_, id}, symbol); }
  TypeIndex ownerType() const {
    if (in_ != kNone) return p_.functions[in_].owner;
    if (of_ != kNone) return b_.variables[of_].owner;
    return kNone;
  }

  Creation creationAt(NodeId id, TypeIndex type) const {
    Creation out;
    out.type = type;
    out.place = {f_, id};
    out.in = in_;
    return out;
  }

  // ----- declarations inside bodies

  void fieldInit(NodeId id, const Function& fn) {
    std::vector<TypeUseId> types;
    for (NodeId c : children(file(), id)) types.push_back(visit(c));
    if (fn.owner == kNone) return;
    std::string_view name = file().name(id);
    NameId last = b_.intern(lastPart(name));
    if (last == p_.types[fn.owner].name) {
      Creation creation = creationAt(id, fn.owner);
      creation.delegated = true;
      finishCreation(creation, types);
      return;
    }
    for (Symbol symbol : k_.members(fn.owner, last)) {
      if (!symbol.is(Symbol::Sort::Variable)) continue;
      setSymbol(id, symbol);
      const Variable& field = b_.variables[symbol.index()];
      setType(id, field.type);
      const TypeUse use = b_.use(field.type);
      if (use.decl != kNone && !use.has(kPointer | kReference)) {
        Creation creation = creationAt(id, use.decl);
        creation.asVariable = symbol.index();
        creation.copy = types.size() == 1 && isSameClass(types[0], use.decl);
        finishCreation(creation, types);
      } else if (use.decl == kNone && use.name) {
        foreign(use.name, id);
      }
      return;
    }
    Symbol base = k_.followAlias(k_.lookup(name, scope_, f_, true), f_);
    TypeIndex made = base.is(Symbol::Sort::Type) ? base.index() : kNone;
    if (made == kNone && (name == "super" || name == "base"))  // the language's word for it
      for (const Base& b : p_.types[fn.owner].bases)
        if (made == kNone && b.type != kNone && p_.types[b.type].form == TypeForm::Class) made = b.type;
    if (made == kNone) return;
    Creation creation = creationAt(id, made);
    creation.asBase = true;
    finishCreation(creation, types);
  }

  bool isSameClass(TypeUseId type, TypeIndex decl) const { return type != 0 && b_.use(type).decl == decl && !b_.use(type).has(kPointer); }

  void finishCreation(Creation creation, const std::vector<TypeUseId>& arguments) {
    int best = -999;
    bool named = creation.constructor != kNone;
    for (FunctionIndex m : p_.types[creation.type].methods) {
      if (named || p_.functions[m].form != FunctionForm::Constructor) continue;
      int score = overloads_.fit(m, arguments) + (isCopyConstructor(m) == creation.copy ? 1 : 0) + (creation.place.file == f_ ? overloads_.fitOfLiterals(m, creation.place.node) : 0);
      if (score <= best) continue;
      best = score;
      creation.constructor = m;
    }
    creation.inInitialiserOf = of_;
    // An expression for a new object makes one, but where making and constructing are two steps.
    bool passed = named || creation.asBase || p_.node(creation.place).is(Kind::Create, CreateForm::Raw) || (p_.node(creation.place).kind == Kind::Create && !p_.guarantees(f_).constructorAfterFactory.holds);
    if (FunctionIndex factory = passed ? kNone : factoryOf(creation.type); factory != kNone && factory != in_) {
      if (creation.constructor != kNone) b_.calls.push_back({creation.constructor, creation.place, in_, of_});
      creation.constructor = factory;
      setSymbol(creation.place.node, Symbol(Symbol::Sort::Function, factory));
    }
    if (creation.constructor != kNone) b_.calls.push_back({creation.constructor, creation.place, in_, of_});
    b_.creations.push_back(creation);
  }

  // What runs in place of the class's constructor, its own or an inherited one.
  FunctionIndex factoryOf(TypeIndex type) const {
    FunctionIndex out = kNone;
    if (type != kNone)
      p_.anyBase(type, [&](TypeIndex at, const Base*) {
        for (FunctionIndex m : p_.types[at].methods)
          if (out == kNone && p_.functions[m].form == FunctionForm::Factory) out = m;
        return out != kNone;
      });
    return out;
  }

  bool isCopyConstructor(FunctionIndex m) const {
    const Function& fn = p_.functions[m];
    if (fn.parameters.size() != 1) return false;
    const TypeUse& use = b_.use(b_.variables[fn.parameters[0]].type);
    return use.decl == fn.owner && fn.owner != kNone && !use.has(kPointer);
  }

  void localVariable(NodeId id) {
    NodeId typeNode = file().child(id, Role::Type);
    NodeId value = file().child(id, Role::Initialiser);
    TypeUseId type = typeNode == kNoNode ? 0 : b_.writtenType(f_, typeNode, scope_);
    VariableIndex index = b_.variables.size();
    {
      Variable& variable = b_.variables.add();
      variable.name = global(id);
      variable.modifiers = node(id).modifiers;
      bool isExtern = node(id).has(kExtern);
      variable.storage = node(id).has(kStatic | kThreadLocal) ? Storage::FunctionStatic : Storage::Local;
      bool outlives = variable.storage == Storage::FunctionStatic && in_ != kNone;
      variable.qualified = outlives ? b_.intern(std::string(b_.text(p_.functions[in_].qualified)) + "::" + std::string(b_.text(variable.name))) : variable.name;
      variable.function = in_;
      variable.definition = {f_, id};
      variable.declarations.push_back({f_, id});
      variable.type = type;
      if (isExtern) {  // extern int x; inside a function names a global
        Symbol outer = k_.globalNamed(variable.name, scope_);
        if (outer.is(Symbol::Sort::Variable)) {
          locals_.emplace_back(variable.name, outer.index());
          b_.variables.dropLast();
          setSymbol(id, outer);
          return;
        }
      }
    }
    setSymbol(id, Symbol(Symbol::Sort::Variable, index));
    bool isAuto = typeNode != kNoNode && file().name(typeNode) == "auto";
    TypeUseId valueType = 0;
    size_t creationsBefore = b_.creations.size();
    if (value != kNoNode) valueType = visit(value);
    if (isAuto || (typeNode == kNoNode && value != kNoNode)) {
      type = k_.asDeduced(b_, {f_, id}, valueType);
      b_.variables[index].type = type;
    }
    setType(id, type);
    locals_.emplace_back(global(id), index);
    // An object of a class of ours by value: made here.
    const TypeUse use = b_.use(type);
    if (use.decl != kNone && !use.has(kPointer | kReference | kArray) && !node(id).has(kExtern)) {
      if (value != kNoNode && node(value).kind == Kind::Create && b_.creations.size() > creationsBefore) {
        for (size_t i = creationsBefore; i < b_.creations.size(); ++i)
          if (b_.creations[i].place == Place{f_, value}) b_.creations[i].asVariable = index;
      } else if (value == kNoNode || isSameClass(valueType, use.decl)) {
        Creation creation = creationAt(id, use.decl);
        creation.asVariable = index;
        creation.copy = value != kNoNode;
        bool made = value != kNoNode && (node(value).kind == Kind::Call || node(value).kind == Kind::Conditional) && valueType != 0 && !b_.use(valueType).has(kReference);
        if (!made) finishCreation(creation, value == kNoNode ? std::vector<TypeUseId>{} : std::vector<TypeUseId>{valueType});
      }
    } else if (use.decl == kNone && use.name && value == kNoNode && !use.has(kPointer | kReference)) {
      foreign(use.name, id);
    }
  }

  void foreign(NameId name, NodeId at) {
    b_.foreignCalls.push_back({name, {f_, at}, in_, of_});
    if (p_.guarantees(f_).callTraits(b_.text(name)) & kRunsGiven) runGiven(at);
  }

  // doPrivileged(new PrivilegedAction() { … }): a class that is written there is run there.
  void runGiven(NodeId call) {
    for (NodeId argument = node(call).firstChild; argument != kNoNode; argument = node(argument).nextSibling)
      for (NodeId c = node(argument).kind == Kind::Create ? node(argument).firstChild : kNoNode; c != kNoNode; c = node(c).nextSibling)
        if (Symbol own = p_.links[f_].symbol[c]; node(c).kind == Kind::Type && own.is(Symbol::Sort::Type))
          for (FunctionIndex m : p_.types[own.index()].methods)
            if (p_.functions[m].form == FunctionForm::Function) b_.calls.push_back({m, {f_, call}, in_, of_});
  }

  VariableIndex findLocal(NameId name) const {
    for (auto it = locals_.rbegin(); it != locals_.rend(); ++it)
      if (it->first == name) return it->second;
    return kNone;
  }

  // ----- expressions

  Symbol resolveName(NodeId id) {
    std::string_view text = file().name(id);
    if (text.find("::") == std::string_view::npos) {
      VariableIndex local = findLocal(global(id));
      if (local != kNone) return Symbol(Symbol::Sort::Variable, local);
    }
    Symbol found = b_.lookupKnown(global(id), scope_, f_, false);
    // Inside a class that bears its constructors' name, the name is the class's.
    if (found.is(Symbol::Sort::Function) && p_.functions[found.index()].form == FunctionForm::Constructor && p_.functions[found.index()].owner != kNone)
      return Symbol(Symbol::Sort::Type, p_.functions[found.index()].owner);
    return found.is(Symbol::Sort::Alias) ? k_.followAlias(found, f_) : found;
  }

  TypeUseId typeAtReceiver(NodeId member) const {
    NodeId receiver = file().child(member, Role::Receiver);
    return receiver == kNoNode ? 0 : p_.links[f_].type[receiver];
  }

  // Once the arguments are known: which of the overloads is called at `id`?
  FunctionIndex settleCall(NodeId id, NodeId callee, FunctionIndex fn, size_t call, const std::vector<TypeUseId>& types) {
    FunctionIndex better = overloads_.byTypes(fn, types);
    if (better == fn) return fn;
    setSymbol(callee, Symbol(Symbol::Sort::Function, better));
    setSymbol(id, Symbol(Symbol::Sort::Function, better));
    b_.calls[call].callee = better;
    return better;
  }

  TypeUseId typeOfSymbol(Symbol symbol) const {
    if (symbol.is(Symbol::Sort::Variable)) return b_.variables[symbol.index()].type;
    return 0;
  }

  size_t argumentCount(NodeId call) const {
    size_t count = 0;
    for (NodeId c : children(file(), call)) count += node(c).role == Role::Argument;
    return count;
  }

  // What `->` and `*` reach from a value of that type.
  TypeUseId pointee(TypeUseId type) {
    if (type == 0) return 0;
    const TypeUse use = b_.use(type);
    if (use.has(kPointer | kArray)) return b_.withModifiers(type, kReference, kPointer | kArray);
    if (use.iterator) return use.argumentCount == 1 ? b_.argument(use, 0) : type;
    uint32_t traits = p_.guarantees(f_).typeTraits(b_.text(use.name));
    if (use.decl == kNone && (traits & kPointerLike)) return b_.argument(use, 0);
    if (use.decl != kNone) {
      NameId arrow = p_.names.find("operator->");
      NameId star = p_.names.find("operator*");
      for (NameId op : {arrow, star}) {
        if (!op) continue;
        for (Symbol symbol : k_.members(use.decl, op)) {
          if (!symbol.is(Symbol::Sort::Function)) continue;
          TypeUseId result = b_.substitute(p_.functions[symbol.index()].result, type);
          return b_.withModifiers(result, kReference, kPointer);
        }
      }
    }
    return type;
  }

  // A getter runs when its name is read.
  TypeUseId throughGetter(Symbol symbol, NodeId id) {
    if (!symbol.is(Symbol::Sort::Function)) return 0;
    const Function& fn = p_.functions[symbol.index()];
    // level of a class of another language stands for its getLevel().
    bool across = fn.parameters.empty() && fn.name != global(id) && fn.form == FunctionForm::Function && node(id).kind == Kind::Member && p_.language(fn.declarations.front().file).id != p_.language(f_).id;
    if (fn.form != FunctionForm::Getter && !across) return 0;
    b_.calls.push_back({symbol.index(), {f_, id}, in_, of_});
    return p_.functions[symbol.index()].result;
  }

  // A member of a class or module itself, in languages that reach it by a dot.
  bool memberOfScope(NodeId id, NodeId receiver, size_t arguments, bool called, TypeUseId& result) {
    if (receiver == kNoNode || !p_.language(f_).dotted) return false;
    Symbol outer = p_.links[f_].symbol[receiver];
    if (!outer.is(Symbol::Sort::Type) && !outer.is(Symbol::Sort::Namespace)) return false;
    NameId name = global(id);
    Symbols list;
    if (outer.is(Symbol::Sort::Type)) {
      list = k_.members(outer.index(), name);
      if (list.empty()) list = k_.membersAcross(outer.index(), name, f_);
    } else if (Symbol found = k_.followAlias(k_.lookupIn(name, outer.index(), f_, false), f_); found.known()) {
      list.push_back(found);
    }
    FunctionIndex fn = called ? overloads_.byCount(list, arguments) : kNone;
    Symbol symbol = fn != kNone ? Symbol(Symbol::Sort::Function, fn) : list.empty() ? Symbol{} : k_.followAlias(list.front(), f_);
    setSymbol(id, symbol);
    if (fn != kNone) {
      result = p_.functions[fn].result;
    } else {
      result = called ? 0 : throughGetter(symbol, id);
      if (result == 0) result = typeOfSymbol(symbol);
    }
    return true;
  }

  // A member of the library's by which the environment is read without a call.
  bool readsEnvironment(NodeId receiver, NameId name) const {
    for (std::string_view known : p_.guarantees(f_).environment)
      if (lastPart(known) == b_.text(name) && scopePart(known) == lastPart(file().name(receiver))) return !p_.links[f_].symbol[receiver].is(Symbol::Sort::Variable);
    return false;
  }

  TypeUseId member(NodeId id, size_t arguments, bool called) {
    NodeId receiver = file().child(id, Role::Receiver);
    TypeUseId type = receiver == kNoNode ? 0 : visit(receiver);
    for (NodeId c : children(file(), id))  // name<Type>
      if (node(c).role == Role::TypeArgument)
        if (TypeIndex decl = b_.use(b_.writtenType(f_, c, scope_)).decl; decl != kNone) setSymbol(c, Symbol(Symbol::Sort::Type, decl));
    NameId name = global(id);
    if (!called && receiver != kNoNode && readsEnvironment(receiver, name)) foreign(b_.intern(std::string(file().name(receiver)) + "::" + std::string(file().name(id))), id);
    if (TypeUseId result = 0; memberOfScope(id, receiver, arguments, called, result)) return result;
    const TypeUse before = b_.use(type);
    bool library = type != 0 && before.decl == kNone && !before.has(kPointer);
    if (node(id).has(kArrow)) type = pointee(type);
    const TypeUse use = b_.use(type);
    if (use.iterator && use.argumentCount >= 2) {
      std::string_view text = b_.text(name);
      if (text == "second") return b_.argument(use, 1);
      if (text == "first") return b_.argument(use, 0);
    }
    if (use.decl == kNone && use.argumentCount == 2 && b_.text(use.name) == "std::pair") {
      if (b_.text(name) == "second") return b_.argument(use, 1);
      if (b_.text(name) == "first") return b_.argument(use, 0);
    }
    if (use.decl != kNone && !(library && !node(id).has(kArrow))) {
      TypeUseId through = 0;
      Symbols list = k_.members(use.decl, name, &through);
      if (list.empty()) list = k_.membersAcross(use.decl, name, f_);
      // Python Language Reference 3.2 (class instances): what the object itself has goes before what any class has.
      if (!called && p_.guarantees(f_).classWritesAreOwn && !list.empty())
        if (Symbol own = k_.fieldOfObjects(use.decl, name); own.known()) list = {own};
      if (called) {
        FunctionIndex fn = overloads_.byCount(list, arguments);
        if (fn != kNone) {
          setSymbol(id, Symbol(Symbol::Sort::Function, fn));
          TypeUseId result = b_.substitute(p_.functions[fn].result, through ? through : type);
          return b_.substitute(result, type);
        }
      }
      // Through an object its own field goes before the class's of the same name.
      std::stable_partition(list.begin(), list.end(), [&](Symbol symbol) { return !symbol.is(Symbol::Sort::Variable) || b_.variables[symbol.index()].storage != Storage::StaticField; });
      for (Symbol symbol : list) {
        if (!symbol.is(Symbol::Sort::Variable) && !symbol.is(Symbol::Sort::Function)) continue;
        setSymbol(id, symbol);
        if (TypeUseId got = called ? 0 : throughGetter(symbol, id)) return b_.substitute(got, type);
        return b_.substitute(b_.substitute(typeOfSymbol(symbol), through), type);
      }
      return 0;
    }
    if (use.decl == kNone && called) return libraryMember(use, type, b_.text(name));
    // What a lazy or optional value holds.
    if (use.decl == kNone && (b_.text(name) == "Value" || b_.text(name) == "value") && (p_.guarantees(f_).typeTraits(b_.text(use.name)) & kPointerLike)) return b_.argument(use, 0);
    return 0;
  }

  // Results of the members of library types that keep us on the track.
  TypeUseId libraryMember(const TypeUse& use, TypeUseId type, std::string_view name) {
    uint32_t traits = p_.guarantees(f_).typeTraits(b_.text(use.name));
    if (traits & (kPointerLike | kAtomicType)) {
      if (name == "get" || name == "release") return b_.withModifiers(b_.argument(use, 0), kPointer, kReference);
      if (name == "value" || name == "load" || name == "exchange") return b_.argument(use, 0);
      if (name == "lock") return type;
      return 0;
    }
    if (traits & kKeyedCollection) {
      if (name == "at") return b_.argument(use, 1);
      if (name == "find" || name == "begin" || name == "end" || name == "emplace" || name == "insert" || name == "lower_bound") return iteratorOver(use);
      return 0;
    }
    if (traits & kCollection) {
      if (name == "at" || name == "front" || name == "back" || name == "top" || name == "emplace_back") return b_.argument(use, 0);
      if (name == "find" || name == "begin" || name == "end" || name == "cbegin") return iteratorOver(use);
    }
    return 0;
  }

  TypeUseId iteratorOver(const TypeUse& collection) {
    TypeUse use = collection;
    use.iterator = true;
    use.modifiers = 0;
    use.name = b_.intern("iterator");
    uint32_t traits = p_.guarantees(f_).typeTraits(b_.text(collection.name));
    if (!(traits & kKeyedCollection) && use.argumentCount > 1) use.argumentCount = 1;
    return b_.addUse(use);
  }

  TypeUseId elementOf(TypeUseId type) {
    if (type == 0) return 0;
    const TypeUse use = b_.use(type);
    if (use.has(kArray)) return b_.withModifiers(type, 0, kArray);
    uint32_t traits = use.decl == kNone ? p_.guarantees(f_).typeTraits(b_.text(use.name)) : 0;
    if (traits & kKeyedCollection) return iteratorOver(use);
    if (traits & kCollection) return b_.argument(use, 0);
    return 0;
  }

  TypeUseId call(NodeId id) {
    NodeId callee = file().child(id, Role::Callee);
    size_t arguments = argumentCount(id);
    TypeUseId result = 0;
    if (callee == kNoNode) {
      visitChildren(id);
      return 0;
    }
    if (node(callee).kind == Kind::Member) {
      result = member(callee, arguments, true);
      Symbol symbol = p_.links[f_].symbol[callee];
      if (symbol.is(Symbol::Sort::Function) && namesConstructor(callee, symbol.index())) {
        TypeIndex made = p_.functions[symbol.index()].owner;
        setSymbol(callee, Symbol(Symbol::Sort::Type, made));
        return creationByCall(made, id, symbol.index());
      } else if (symbol.is(Symbol::Sort::Function)) {
        setSymbol(id, symbol);
        b_.calls.push_back({symbol.index(), {f_, id}, in_, of_});
      } else if (symbol.is(Symbol::Sort::Variable)) {
        setSymbol(id, symbol);
      } else if (symbol.is(Symbol::Sort::Type)) {
        return creationByCall(symbol.index(), id);
      } else {
        foreign(memberName(callee), id);
      }
      size_t calls = b_.calls.size();
      std::vector<TypeUseId> types = visitArguments(id);
      if (symbol.is(Symbol::Sort::Function))
        if (FunctionIndex fn = settleCall(id, callee, symbol.index(), calls - 1, types); fn != symbol.index()) result = b_.substitute(p_.functions[fn].result, typeAtReceiver(callee));
      if (!symbol.known() && types.size() == 2 && p_.language(f_).infersTypes && p_.guarantees(f_).collectionAct(file().name(callee)) == CollectionAct::Add)
        elementIs(file().child(callee, Role::Receiver), types[1]);
      if (!symbol.known()) inPlace(id, callee, types);
      if (!symbol.known() && result == 0) result = madeByCall(memberName(callee));
      setType(callee, result);
      return result;
    }
    if (node(callee).kind == Kind::Name) {
      Symbol symbol = resolveName(callee);
      std::string_view text = file().name(callee);
      // A class may have a field and a method of one name: what is called is the method.
      if (symbol.is(Symbol::Sort::Variable) && b_.variables[symbol.index()].owner != kNone)
        if (FunctionIndex fn = overloads_.byCount(k_.members(b_.variables[symbol.index()].owner, b_.variables[symbol.index()].name), arguments); fn != kNone) symbol = Symbol(Symbol::Sort::Function, fn);
      if (symbol.is(Symbol::Sort::Function)) {
        FunctionIndex fn = overloads_.named(symbol, arguments);
        setSymbol(callee, Symbol(Symbol::Sort::Function, fn));
        setSymbol(id, Symbol(Symbol::Sort::Function, fn));
        size_t call = b_.calls.size();
        b_.calls.push_back({fn, {f_, id}, in_, of_});
        std::vector<TypeUseId> types = visitArguments(id);
        return callResult(settleCall(id, callee, fn, call, types), callee);
      }
      if (symbol.is(Symbol::Sort::Type)) {
        setSymbol(callee, symbol);
        return creationByCall(symbol.index(), id);
      }
      if (symbol.is(Symbol::Sort::Variable)) {
        setSymbol(callee, symbol);
        setSymbol(id, symbol);
        visitArguments(id);
        // Calling an object of a class of ours: its call operator.
        const TypeUse use = b_.use(typeOfSymbol(symbol));
        if (use.decl != kNone) {
          NameId op = p_.names.find("operator()");
          FunctionIndex fn = op ? overloads_.byCount(k_.members(use.decl, op), arguments) : kNone;
          if (fn != kNone) {
            b_.calls.push_back({fn, {f_, id}, in_, of_});
            return p_.functions[fn].result;
          }
        }
        return 0;
      }
      std::vector<TypeUseId> types = visitArguments(id);
      foreign(global(callee), id);
      std::string_view last = lastPart(text);
      if ((last == "move" || last == "forward" || last == "ref" || last == "as_const" || last == "cref") && types.size() == 1) return types[0];
      if (last == "addressof" && types.size() == 1) return b_.withModifiers(types[0], kPointer, kReference);
      return madeByCall(global(callee));
    }
    if (node(callee).kind == Kind::Lambda) {  // called where it stands: what it returns
      TypeUseId outer = returned_;
      returned_ = 0;
      visit(callee);
      result = returned_;
      returned_ = outer;
      visitArguments(id);
      return result;
    }
    result = visit(callee);
    visitArguments(id);
    // A call on the result of a call: an object with a call operator, or a function pointer.
    return result;
  }

  // A library's type that is made by calling it.
  TypeUseId madeByCall(NameId name) {
    constexpr uint32_t kTold = kLockType | kConditionType | kOnceFlagType | kCollection | kKeyedCollection | kPerThread;
    if (!p_.language(f_).createsByCall || !(p_.guarantees(f_).typeTraits(b_.text(name)) & kTold)) return 0;
    TypeUse use;
    use.name = name;
    use.modifiers = kManaged;
    return b_.addUse(use);
  }

  // What is put into a collection without written types tells what it holds.
  void elementIs(NodeId collection, TypeUseId element) {
    if (collection == kNoNode || element == 0 || b_.use(element).decl == kNone) return;
    Symbol symbol = p_.links[f_].symbol[collection];
    if (!symbol.is(Symbol::Sort::Variable)) return;
    Variable& variable = b_.variables[symbol.index()];
    TypeUse use = b_.use(variable.type);
    if (use.decl != kNone || use.argumentCount != 0 || !(p_.guarantees(f_).typeTraits(b_.text(use.name)) & kCollection)) return;
    variable.type = b_.addUse(use, {0, element});
  }

  // self.init(…), by which one constructor calls another.
  bool handsOn(NodeId receiver) const { return node(receiver).kind == Kind::This && node(receiver).name == 0 && in_ != kNone && p_.functions[in_].form == FunctionForm::Constructor; }
  // T.name(…), where `name` is one of the constructors of T.
  bool namesConstructor(NodeId callee, FunctionIndex fn) const {
    NodeId receiver = file().child(callee, Role::Receiver);
    return p_.functions[fn].form == FunctionForm::Constructor && receiver != kNoNode && (p_.links[f_].symbol[receiver].is(Symbol::Sort::Type) || handsOn(receiver));
  }

  // T(…)
  TypeUseId creationByCall(TypeIndex type, NodeId id, FunctionIndex constructor = kNone) {
    std::vector<TypeUseId> types = visitArguments(id);
    Creation creation = creationAt(id, type);
    creation.copy = types.size() == 1 && isSameClass(types[0], type);
    creation.constructor = constructor;
    NodeId first = file().child(id, Role::Argument), callee = file().child(id, Role::Callee), receiver = callee == kNoNode ? kNoNode : file().child(callee, Role::Receiver);
    creation.delegated = constructor != kNone && receiver != kNoNode && handsOn(receiver) && ownerType() == type;
    // T.name(this, …) in a derived class's constructor sees to the part that is a T.
    creation.asBase = constructor != kNone && first != kNoNode && node(first).kind == Kind::This && in_ != kNone && p_.functions[in_].form == FunctionForm::Constructor && ownerType() != type && p_.derivesFrom(ownerType(), type);
    finishCreation(creation, types);
    TypeUse use;
    use.decl = type;
    use.name = p_.types[type].qualified;
    if (p_.language(f_).dotted) use.modifiers = kManaged;
    return b_.addUse(use);
  }

  // "Thread::sleep" for a member of something that is not in the tree, named by one word.
  NameId memberName(NodeId callee) {
    NodeId receiver = file().child(callee, Role::Receiver);
    if (!p_.language(f_).dotted || receiver == kNoNode || node(receiver).kind != Kind::Name || p_.links[f_].symbol[receiver].is(Symbol::Sort::Variable)) return global(callee);
    return b_.intern(std::string(file().name(receiver)) + "::" + std::string(file().name(callee)));
  }

  TypeUseId callResult(FunctionIndex fn, NodeId callee) {
    TypeUseId result = p_.functions[fn].result;
    const Function& function = p_.functions[fn];
    if (result == 0) return 0;
    std::string_view text = file().name(callee);
    std::string_view scope = scopePart(text);
    TypeUseId receiver = 0;
    if (!scope.empty() && function.owner != kNone) {
      // Derived::instance() or Base<Arg>::instance(): fill the class's type parameters.
      Symbol outer = k_.followAlias(k_.lookup(scope, scope_, f_, true), f_);
      if (outer.is(Symbol::Sort::Type)) {
        TypeUse use;
        use.decl = outer.index();
        std::vector<TypeUseId> arguments;
        for (NodeId c : children(file(), callee))
          if (node(c).role == Role::TypeArgument) arguments.push_back(b_.writtenType(f_, c, scope_));
        if (outer.index() == function.owner && !arguments.empty()) {
          receiver = b_.addUse(use, arguments);
        } else if (outer.index() != function.owner) {
          TypeUseId through = 0;
          (void)k_.members(outer.index(), function.name, &through);
          receiver = through;
        }
      }
    }
    if (receiver) result = b_.substitute(result, receiver);
    // instance<T>(): the function's own type parameters.
    const TypeUse use = b_.use(result);
    if (use.parameter && !function.typeParameters.empty()) {
      size_t position = 0;
      for (NodeId c : children(file(), callee)) {
        if (node(c).role != Role::TypeArgument) continue;
        if (position < function.typeParameters.size() && function.typeParameters[position] == use.name)
          return b_.withModifiers(b_.writtenType(f_, c, scope_), use.modifiers, 0);
        ++position;
      }
    }
    return result;
  }

  // v.emplace_back(…) makes an element in place.
  void inPlace(NodeId id, NodeId callee, std::vector<TypeUseId> arguments) {
    std::string_view name = file().name(callee);
    if (name.substr(0, 7) != "emplace" && name != "try_emplace") return;
    NodeId receiver = file().child(callee, Role::Receiver);
    if (receiver == kNoNode) return;
    TypeUseId type = p_.links[f_].type[receiver];
    if (type == 0) return;
    const TypeUse use = b_.use(type);
    uint32_t traits = p_.guarantees(f_).typeTraits(b_.text(use.name));
    TypeUseId element = traits & kKeyedCollection ? b_.argument(use, 1) : traits & (kCollection | kOptionalType) ? b_.argument(use, 0) : 0;
    const TypeUse made = b_.use(element);
    if (made.decl == kNone || made.has(kPointer)) return;
    Creation creation = creationAt(id, made.decl);
    creation.form = CreateForm::InPlace;
    if ((traits & kKeyedCollection) && !arguments.empty()) arguments.erase(arguments.begin());
    finishCreation(creation, arguments);
  }

  std::vector<TypeUseId> visitArguments(NodeId id) {
    std::vector<TypeUseId> types;
    for (NodeId c : children(file(), id))
      if (node(c).role == Role::Argument) types.push_back(visit(c));
      else if (node(c).role == Role::Value) visit(c);  // what a field is given by name
    return types;
  }

  void visitChildren(NodeId id) {
    for (NodeId c : children(file(), id)) visit(c);
  }

  TypeUseId visit(NodeId id) {
    TypeUseId type = visitInner(id);
    if (type) setType(id, type);
    return type;
  }

  TypeUseId visitInner(NodeId id) {
    switch (node(id).kind) {
      case Kind::Block: case Kind::If: case Kind::Loop: case Kind::Switch: case Kind::Try: {
        size_t mark = locals_.size();
        if (node(id).kind == Kind::Loop) rangeLoop(id);
        else visitChildren(id);
        locals_.resize(mark);
        return 0;
      }
      case Kind::FieldInit:  // in the body, where a constructor hands on to another by a statement
        if (in_ != kNone) fieldInit(id, p_.functions[in_]);
        return 0;
      case Kind::Variable: localVariable(id); return 0;
      case Kind::Type: case Kind::Alias: case Kind::Using: case Kind::Function: case Kind::TypeRef: case Kind::Import: return 0;
      case Kind::Name: {
        Symbol symbol = resolveName(id);
        setSymbol(id, symbol);
        if (TypeUseId got = throughGetter(symbol, id)) return got;
        return typeOfSymbol(symbol);
      }
      case Kind::Member: {
        TypeUseId type = member(id, 0, false);
        return type;
      }
      case Kind::This: return visitThis();
      case Kind::Call: return call(id);
      case Kind::Create: return create(id);
      case Kind::Index: return visitIndex(id);
      case Kind::Collection: return visitCollection(id);
      case Kind::Dereference: {
        NodeId operand = file().child(id, Role::Operand);
        return operand == kNoNode ? 0 : pointee(visit(operand));
      }
      case Kind::AddressOf: {
        NodeId operand = file().child(id, Role::Operand);
        return operand == kNoNode ? 0 : b_.withModifiers(visit(operand), kPointer, kReference);
      }
      case Kind::Cast: return visitCast(id);
      case Kind::Conditional: return visitConditional(id);
      case Kind::Assign: return visitAssign(id);
      case Kind::Return: {
        TypeUseId type = 0;
        for (NodeId c : children(file(), id)) type = visit(c);
        if (type != 0) returned_ = type;
        if (type != 0 && in_ != kNone && lambdas_ == 0 && p_.functions[in_].result == 0 && p_.language(f_).infersTypes) p_.functions[in_].result = type;
        return 0;
      }
      case Kind::Guard: case Kind::Once: return visitGuard(id);
      case Kind::Update: case Kind::Await: {
        TypeUseId type = 0;
        for (NodeId c : children(file(), id)) type = visit(c);
        return type;
      }
      case Kind::Lambda: return visitLambda(id);
      default:
        visitChildren(id);
        return 0;
    }
  }

  TypeUseId visitThis() {
    TypeIndex owner = ownerType();
    if (owner == kNone) return 0;
    TypeUse use;
    use.decl = owner;
    use.name = p_.types[owner].qualified;
    use.modifiers = p_.language(f_).dotted ? kManaged : uint32_t{kPointer};
    return b_.addUse(use);
  }

  TypeUseId visitIndex(NodeId id) {
    NodeId receiver = file().child(id, Role::Receiver);
    TypeUseId type = receiver == kNoNode ? 0 : visit(receiver);
    visitArguments(id);
    if (type == 0) return 0;
    const TypeUse use = b_.use(type);
    if (use.has(kArray) || (use.has(kPointer) && (use.modifiers & kManaged) != kManaged)) return b_.withModifiers(type, 0, kArray | (use.has(kArray) ? 0u : uint32_t{kPointer}));
    uint32_t traits = use.decl == kNone ? p_.guarantees(f_).typeTraits(b_.text(use.name)) : 0;
    if (traits & kKeyedCollection) return b_.argument(use, 1);
    if (traits & (kCollection | kOwningPointer)) return b_.argument(use, 0);
    if (use.decl != kNone) {
      NameId op = p_.names.find("operator[]");
      FunctionIndex fn = op ? overloads_.byCount(k_.members(use.decl, op), 1) : kNone;
      if (fn != kNone) return b_.substitute(p_.functions[fn].result, type);
    }
    return 0;
  }

  TypeUseId visitCollection(NodeId id) {
    visitChildren(id);
    if (NodeId written = file().child(id, Role::Type); written != kNoNode) return b_.writtenType(f_, written, scope_);
    if (!node(id).name) return 0;
    TypeUse use;
    use.name = global(id);
    use.modifiers = kManaged;
    return b_.addUse(use);
  }

  TypeUseId visitCast(NodeId id) {
    TypeUseId type = 0;
    for (NodeId c : children(file(), id)) {
      if (node(c).role == Role::Type) type = b_.writtenType(f_, c, scope_);
      else visit(c);
    }
    return type;
  }

  TypeUseId visitConditional(NodeId id) {
    TypeUseId type = 0;
    for (NodeId c : children(file(), id)) {
      TypeUseId branch = visit(c);
      if (type == 0 && (node(c).role == Role::Then || node(c).role == Role::Else)) type = branch;
    }
    return type;
  }

  TypeUseId visitAssign(NodeId id) {
    TypeUseId type = 0, value = 0;
    NodeId target = kNoNode;
    for (NodeId c : children(file(), id)) {
      TypeUseId side = visit(c);
      if (node(c).role == Role::Target) type = side, target = c;
      else value = side;
    }
    if (type == 0 && value != 0 && target != kNoNode && p_.language(f_).infersTypes) {
      Symbol symbol = p_.links[f_].symbol[target];
      if (symbol.is(Symbol::Sort::Variable)) b_.variables[symbol.index()].type = value;
      type = value;
      if (node(target).kind == Kind::Index) elementIs(file().child(target, Role::Receiver), value);
    }
    return type;
  }

  TypeUseId visitGuard(NodeId id) {
    // What stands between lock() and unlock() is no scope of its own.
    bool open = node(id).is(Kind::Guard, GuardForm::LockUnlock);
    size_t mark = locals_.size();
    for (NodeId c : children(file(), id)) {
      if (open && node(c).role == Role::Body) visitChildren(c);
      else visit(c);
      if (node(c).role == Role::Lock) monitor(c);
    }
    if (!open) locals_.resize(mark);
    return 0;
  }

  TypeUseId visitLambda(NodeId id) {
    size_t mark = locals_.size();
    ++lambdas_;
    for (NodeId c : children(file(), id)) {
      if (node(c).kind == Kind::Capture) {
        NodeId value = file().child(c, Role::Initialiser);
        if (value != kNoNode) {
          TypeUseId type = visit(value);
          addLocal(c, type);
        } else if (node(c).name) {
          VariableIndex captured = findLocal(global(c));
          if (captured != kNone) setSymbol(c, Symbol(Symbol::Sort::Variable, captured));
        }
      } else if (node(c).kind == Kind::Parameter) {
        NodeId written = file().child(c, Role::Type);
        addLocal(c, written == kNoNode ? 0 : b_.writtenType(f_, written, scope_));
      } else {
        visit(c);
      }
    }
    --lambdas_;
    locals_.resize(mark);
    return 0;
  }

  // An object or a class that serves as its own lock.
  void monitor(NodeId lock) {
    Symbol symbol = p_.links[f_].symbol[lock];
    TypeIndex type = symbol.is(Symbol::Sort::Type) ? symbol.index() : node(lock).kind == Kind::This ? ownerType() : kNone;
    if (type != kNone) b_.addMonitor({f_, lock}, type, node(lock).kind != Kind::This);
  }

  VariableIndex addLocal(NodeId id, TypeUseId type) {
    VariableIndex index = b_.variables.size();
    Variable& variable = b_.variables.add();
    variable.name = global(id);
    variable.qualified = variable.name;
    variable.storage = node(id).kind == Kind::Parameter ? Storage::Parameter : Storage::Local;
    variable.function = in_;
    variable.definition = {f_, id};
    variable.declarations.push_back({f_, id});
    variable.type = type;
    setSymbol(id, Symbol(Symbol::Sort::Variable, index));
    setType(id, type);
    locals_.emplace_back(variable.name, index);
    return index;
  }

  void rangeLoop(NodeId id) {
    NodeId over = file().child(id, Role::Operand);
    TypeUseId element = 0;
    for (NodeId c : children(file(), id)) {
      if (c == over) {
        element = elementOf(visit(c));
      } else if (over != kNoNode && node(c).kind == Kind::Variable) {
        NodeId written = file().child(c, Role::Type);
        TypeUseId type = written == kNoNode || file().name(written) == "auto" ? element : b_.writtenType(f_, written, scope_);
        addLocal(c, type);
      } else {
        visit(c);
      }
    }
  }

  TypeUseId create(NodeId id) {
    NodeId written = file().child(id, Role::Type);
    TypeUseId type = written == kNoNode ? 0 : b_.writtenType(f_, written, scope_);
    std::vector<TypeUseId> types = visitArguments(id);
    for (NodeId c : children(file(), id)) if (node(c).role == Role::Placement) visitChildren(c);
    // `Foo x(a, b)` with auto or a reference is no creation.
    const TypeUse use = b_.use(type);
    CreateForm form = static_cast<CreateForm>(node(id).detail);
    if (use.decl != kNone && !use.has(kPointer)) {
      setSymbol(id, Symbol(Symbol::Sort::Type, use.decl));
      Creation creation = creationAt(id, use.decl);
      creation.form = form;
      creation.copy = types.size() == 1 && isSameClass(types[0], use.decl);
      finishCreation(creation, types);
    } else if (use.decl == kNone && use.name) {
      foreign(use.name, id);
    }
    if (written != kNoNode && file().name(written) == "auto" && !types.empty()) return types[0];
    if (form == CreateForm::Heap || form == CreateForm::Raw) return b_.withModifiers(type, p_.language(f_).dotted ? kManaged : uint32_t{kPointer}, 0);
    if (form == CreateForm::Unique || form == CreateForm::Shared) {
      TypeUse pointer;
      pointer.name = b_.intern(form == CreateForm::Unique ? "std::unique_ptr" : "std::shared_ptr");
      return b_.addUse(pointer, {type});
    }
    return type;
  }

  Linker& k_;
  Program& p_;
  Batch& b_;
  FileIndex f_;
  ScopeIndex scope_;
  FunctionIndex in_;
  VariableIndex of_;
  std::vector<std::pair<NameId, VariableIndex>> locals_;
  int lambdas_ = 0;
  TypeUseId returned_ = 0;  // by the last return statement
  Overloads overloads_;
};

void walkFunction(Linker& linker, Batch& batch, FunctionIndex function, ScopeIndex scope) { BodyWalk(linker, batch, function, scope).function(); }

TypeUseId walkInitialiser(Linker& linker, Batch& batch, Place value, ScopeIndex scope, FunctionIndex in, VariableIndex variable) {
  return BodyWalk(linker, batch, value.file, scope, in, variable).initialiser(value.node);
}

}  // namespace elmcart
