#include "program/overloads.h"

#include <algorithm>

#include "base/text.h"
#include "program/linker.h"

namespace elmcart {

Overloads::Overloads(const Linker& linker, const Batch& batch, FileIndex f) : k_(linker), p_(linker.p_), b_(batch), f_(f) {}

// Does the class, or one that it extends, name such a base, which is in no file that was read?
bool Overloads::isBaseByName(TypeIndex type, NameId name) const {
  return p_.anyBase(type, [&](TypeIndex at, const Base*) {
    return std::any_of(p_.types[at].bases.begin(), p_.types[at].bases.end(), [&](const Base& base) { return base.type == kNone && b_.use(base.use).name == name; });
  });
}

int Overloads::fit(FunctionIndex m, const std::vector<TypeUseId>& arguments) const {
  const Function& fn = p_.functions[m];
  if (arguments.size() < fn.leastArguments || arguments.size() > fn.mostArguments) return -1000;
  int score = 0;
  for (size_t i = 0; i < arguments.size() && i < fn.parameters.size(); ++i) {
    const TypeUse& parameter = b_.use(b_.variables[fn.parameters[i]].type);
    const TypeUse& argument = b_.use(arguments[i]);
    if (parameter.decl == kNone) {
      score += argument.decl == kNone ? 0 : isBaseByName(argument.decl, parameter.name) ? 2 : -1;
    } else if (argument.decl == kNone) {
      score -= parameter.has(kReference | kPointer) ? 3 : 1;
    } else {
      score += p_.derivesFrom(argument.decl, parameter.decl) ? 3 : -3;
      if (parameter.has(kPointer) != argument.has(kPointer)) score -= 2;
    }
  }
  return score;
}

namespace {

// What literals a type of a language's own takes, told by its name; none: it is another.
LiteralForm formTaken(std::string_view name) {
  std::string low = lowerCase(lastPart(name));
  if (low == "string" || low == "str" || low == "charsequence" || low == "string_view" || low == "nsstring") return LiteralForm::Text;
  if (low == "bool" || low == "boolean") return LiteralForm::Boolean;
  static constexpr std::string_view kNumbers[] = {"int", "integer", "long", "short", "byte", "double", "float", "number", "num", "decimal", "size_t", "uint", "ulong", "nsinteger"};
  if (std::find(std::begin(kNumbers), std::end(kNumbers), low) != std::end(kNumbers) || (low.ends_with("_t") && low.find("int") != std::string::npos)) return LiteralForm::Number;
  return LiteralForm::Null;
}

}  // namespace

int Overloads::fitOfLiterals(FunctionIndex m, NodeId call) const {
  const Function& fn = p_.functions[m];
  const LoweredFile& file = p_.files[f_];
  int score = 0;
  size_t i = 0;
  for (NodeId c : children(file, call)) {
    if (file[c].role != Role::Argument) continue;
    if (i >= fn.parameters.size()) break;
    const TypeUse& parameter = b_.use(b_.variables[fn.parameters[i++]].type);
    LiteralForm given = static_cast<LiteralForm>(file[c].detail);
    if (file[c].kind != Kind::Literal || given == LiteralForm::Null || given == LiteralForm::Character) continue;
    LiteralForm taken = parameter.decl == kNone ? formTaken(b_.text(parameter.name)) : LiteralForm::Null;
    if (taken != LiteralForm::Null) score += taken == given ? 1 : -2;
  }
  return score;
}

FunctionIndex Overloads::byCount(const Symbols& list, size_t arguments) const {
  FunctionIndex fallback = kNone;
  for (Symbol symbol : list) {
    if (!symbol.is(Symbol::Sort::Function)) continue;
    const Function& fn = p_.functions[symbol.index()];
    if (fn.onlyIn != kNone && fn.onlyIn != f_) continue;
    if (fn.leastArguments <= arguments && arguments <= fn.mostArguments) return symbol.index();
    if (fallback == kNone) fallback = symbol.index();
  }
  return fallback;
}

FunctionIndex Overloads::named(Symbol first, size_t arguments) const {
  const Function& fn = p_.functions[first.index()];
  if (fn.leastArguments <= arguments && arguments <= fn.mostArguments) return first.index();
  NameId last = fn.name;
  if (fn.owner != kNone) {
    FunctionIndex found = byCount(k_.members(fn.owner, last), arguments);
    return found == kNone ? first.index() : found;
  }
  if (const auto* list = k_.entries(fn.parent, last)) {
    FunctionIndex found = byCount(*list, arguments);
    if (found != kNone) return found;
  }
  return first.index();
}

FunctionIndex Overloads::byTypes(FunctionIndex chosen, const std::vector<TypeUseId>& types) const {
  const Function& fn = p_.functions[chosen];
  if (types.empty() || std::all_of(types.begin(), types.end(), [](TypeUseId type) { return type == 0; })) return chosen;
  const Symbols members = fn.owner != kNone ? k_.members(fn.owner, fn.name) : Symbols{};
  const Symbols* list = fn.owner != kNone ? &members : k_.entries(fn.parent, fn.name);
  constexpr size_t kMost = 64;  // of more, the first that fits by number is as good a guess
  if (!list || list->size() < 2 || list->size() > kMost) return chosen;
  int best = fit(chosen, types);
  for (Symbol symbol : *list) {
    if (!symbol.is(Symbol::Sort::Function) || (p_.functions[symbol.index()].onlyIn != kNone && p_.functions[symbol.index()].onlyIn != f_)) continue;
    int score = fit(symbol.index(), types);
    if (score > best) best = score, chosen = symbol.index();
  }
  return chosen;
}

}  // namespace elmcart
