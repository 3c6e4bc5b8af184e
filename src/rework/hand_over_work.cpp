#include "rework/hand_over_work.h"

#include <algorithm>

#include "assess/facts.h"
#include "base/object_name.h"
#include "rework/signature.h"
#include "rework/writing.h"

namespace elmcart {

void HandOverWork::byHand(Place place, std::string reason, bool blocks) {
  for (const ByHand& b : byHand_)
    if (b.file == p_.path(place) && b.line == p_.line(place) && b.reason == reason) return;
  byHand_.push_back({p_.path(place), p_.line(place), std::move(reason), blocks});
}

std::string HandOverWork::chooseName() const {
  std::string type(p_.text(p_.types[made_].name)), name;
  type = type.substr(0, type.find_first_of("@$"));
  name = objectName(type, h_->snake);
  std::string shared = h_->snake ? "shared_" + name : "shared" + type;
  for (const std::string& candidate : {name, shared, shared + "_"}) {
    bool taken = false;
    NameId id = p_.names.find(candidate);
    for (const Variable& v : p_.variables) {
      if (!id || v.name != id || p_.language(v.declarations.front().file).handing != h_) continue;
      // One that a step put in, or that holds the object anyway.
      bool own = p_.use(v.type).decl == made_ || (v.type == 0 && (v.storage == Storage::Parameter || v.storage == Storage::Field));
      taken |= !own || (v.lives() && v.storage != Storage::StaticField);
    }
    for (const Function& f : p_.functions) taken |= id && f.name == id && f.owner == kNone;
    if (!taken) return candidate;
  }
  return shared + "_";
}

int HandOverWork::takes(FunctionIndex f) const {
  const Function& fn = p_.functions[f];
  for (size_t i = 0; i < fn.parameters.size(); ++i)
    if (p_.text(p_.variables[fn.parameters[i]].name) == name_) return static_cast<int>(i);
  return -1;
}

bool HandOverWork::isInjected(TypeIndex type) const {
  for (FunctionIndex c : constructorsOf(p_, type))
    if (takes(c) >= 0) return true;
  return false;
}

HandOverTask& HandOverWork::workFor(TypeIndex type, FunctionIndex function, FileIndex file) {
  for (HandOverTask& w : work_)
    if (w.type == type && w.function == function && w.file == file) return w;
  HandOverTask& w = work_.emplace_back();
  w.type = type;
  w.function = function;
  w.file = file;
  return w;
}

void HandOverWork::collect() {
  std::set<std::pair<FileIndex, uint32_t>> seen;  // what is written once may be read twice: a?.b ?? c
  for (const Consumer& c : e_.consumers) {
    if (c.alias != kNone || !sameLanguage(c.place)) continue;
    Place access = accessOf(c.place);
    if (!access.known()) {
      // Through what holds it already, nothing is fetched.
      if (c.reach && scan_.nodeText(c.place).find(plainName(p_, made_)) != std::string::npos) byHand(c.place, "the way by which it is reached here is not written as its accessor or its name");
      continue;
    }
    if (!seen.insert({access.file, p_.node(access).span.begin}).second) continue;
    if (c.in == kNone) {
      bool field = c.inInitialiserOf != kNone && p_.variables[c.inInitialiserOf].storage == Storage::Field;
      TypeIndex owner = field ? p_.variables[c.inInitialiserOf].owner : kNone;
      if (owner == kNone) continue;  // where the file is put together
      if (h_->primary) workFor(owner, kNone).accesses.push_back(access);
      else if (std::string reason = whyNotInConstructor(c.inInitialiserOf); reason.empty()) workFor(owner, kNone).firstValues.emplace_back(c.inInitialiserOf, access);
      else byHand(access, "a field's first value is worked out before the constructor has the object, and " + reason);
      continue;
    }
    TypeIndex unit = unitOf(p_, c.in);
    if (unit == kNone) {
      // Where the program is put together the access point stays. Any other function would need a parameter.
      bool start = p_.functions[c.in].form == FunctionForm::Initialiser || lowerCase(p_.text(p_.functions[c.in].name)) == "main";
      bool own = p_.functions[c.in].owner == made_ || std::any_of(e_.accessPoints.begin(), e_.accessPoints.end(), [&](const AccessPoint& d) { return d.function == c.in; });
      // What is made there is handed the object: that is putting the program together.
      if (!start && !own && !inTests(access) && !isHandedIn(access)) byHand(access, functionText(p_, c.in) + " belongs to no object: the move hand-in gives it a parameter", false);
      continue;
    }
    if (unit == made_) continue;
    if (!sameLanguage(p_.types[unit].definition)) continue;
    // Its own default: what a step before put there.
    if (p_.functions[c.in].form == FunctionForm::Constructor && isInjected(unit)) continue;
    if (p_.functions[c.in].form == FunctionForm::Constructor && standsInForParameter(access, c.in)) continue;
    workFor(unit, kNone).accesses.push_back(access);
  }
  for (const Creation& creation : p_.creations) {
    if (creation.asBase || creation.delegated || creation.type == made_ || !sameLanguage(creation.place) || !isInjected(creation.type)) continue;
    if (isGiven(creation)) continue;
    if (creation.in == kNone) {
      bool field = creation.inInitialiserOf != kNone && p_.variables[creation.inInitialiserOf].storage == Storage::Field;
      if (field && h_->primary) workFor(p_.variables[creation.inInitialiserOf].owner, kNone).passes.push_back(creation.place);
      else if (field && !inTests(creation.place)) byHand(creation.place, "an object that takes it is made for a field before the constructor has anything to hand in; by default it fetches it itself");
      else if (!field && !inTests(creation.place) && mayName(creation.place.file)) workFor(kNone, kNone, creation.place.file).passes.push_back(creation.place);
      continue;
    }
    TypeIndex unit = unitOf(p_, creation.in);
    if (unit == made_) continue;
    if (unit != kNone && p_.types[unit].hasUnknownBase && inTests(creation.place)) continue;  // a test: by default it is fetched
    if (unit != kNone) workFor(unit, kNone).passes.push_back(creation.place);
    else if (!inTests(creation.place) && mayName(creation.place.file)) workFor(kNone, creation.in).passes.push_back(creation.place);
  }
  for (HandOverTask& w : work_) {
    auto key = [&](Place x) { return std::make_tuple(p_.path(x), x.node); };
    std::sort(w.accesses.begin(), w.accesses.end(), [&](Place x, Place y) { return key(x) < key(y); });
  }
}

bool HandOverWork::standsInForParameter(Place access, FunctionIndex constructor) const {
  const LoweredFile& file = p_.file(access);
  auto isParameter = [&](NodeId node) {
    Symbol symbol = p_.symbolAt({access.file, node});
    return file[node].kind == Kind::Name && symbol.is(Symbol::Sort::Variable) && p_.variables[symbol.index()].storage == Storage::Parameter && p_.variables[symbol.index()].function == constructor;
  };
  for (Place at = access, up = p_.parent(access); up.node != kNoNode && p_.node(up).kind != Kind::Function; at = up, up = p_.parent(up)) {
    const Node& node = p_.node(up);
    NodeId condition = node.kind == Kind::If || node.kind == Kind::Conditional ? file.child(up.node, Role::Condition) : kNoNode;
    if (condition != kNoNode && condition != at.node && file[condition].kind == Kind::NullTest && isParameter(file[condition].firstChild)) return true;
    // p or X, p ?? X
    if (node.kind == Kind::Logic && node.detail == static_cast<uint8_t>(LogicForm::Or) && node.firstChild != at.node && isParameter(node.firstChild)) return true;
  }
  return false;
}

std::string HandOverWork::whyNotInConstructor(VariableIndex field) const {
  Place home = p_.variables[field].definition;
  if (h_->assign.empty() || h_->initialisers || h_->snake) return "it stands apart from constructors";
  bool typed = home.known() && p_.file(home).child(home.node, Role::Type) != kNoNode;
  if (!typed && h_->parameter.find("{type}") != std::string_view::npos) return "its type is not written";
  if (isInjected(p_.variables[field].owner)) return "the constructor takes the object already";
  for (uint32_t u : p_.usesOfVariable[field])
    if (p_.uses[u].in == kNone || p_.functions[p_.uses[u].in].form == FunctionForm::Initialiser) return "another value is worked out from it before the constructor runs";
  return "";
}

bool HandOverWork::isHandedIn(Place access) const {
  Place creation = p_.around(access, Kind::Create);
  if (creation.node == kNoNode) creation = p_.around(access, Kind::Call);
  return creation.node != kNoNode && std::any_of(p_.creations.begin(), p_.creations.end(), [&](const Creation& c) { return c.place == creation && isInjected(c.type); });
}

bool HandOverWork::isGiven(const Creation& creation) {
  FunctionIndex target = targetOf(creation);
  if (target == kNone) return true;  // to a constructor that does not take it
  if (h_->argument != "{value}") {
    for (NodeId c : argumentsOf(p_.file(creation.place), creation.place.node))
      if (scan_.nodeText({creation.place.file, c}).starts_with(name_)) return true;
    std::string written = scan_.nodeText(creation.place);
    return written.find(name_ + "=") != std::string::npos || written.find(name_ + " =") != std::string::npos || written.find(name_ + ":") != std::string::npos;
  }
  return static_cast<int>(argumentsOf(p_.file(creation.place), creation.place.node).size()) > takes(target);
}

FunctionIndex HandOverWork::targetOf(const Creation& creation) const {
  std::vector<FunctionIndex> all = constructorsOf(p_, creation.type);
  size_t given = argumentsOf(p_.file(creation.place), creation.place.node).size();
  FunctionIndex only = kNone;
  for (FunctionIndex c : all) {
    if (takes(c) < 0) continue;
    if (c == creation.constructor) return c;
    if (h_->overload.empty()) {
      if (creation.constructor == kNone) only = c;
    } else if (p_.functions[c].parameters.size() == given + 1) {
      only = c;  // its twin keeps the old parameters
    }
  }
  return only;
}

bool HandOverWork::mayName(FileIndex f) const {
  if (h_->typeImport.empty() && !h_->snake && h_->passed.empty()) return true;  // one module
  if (h_->typeImport == "\\" || h_->typeImport.starts_with("import {") || h_->typeImport.starts_with("using")) return true;
  for (const Consumer& c : e_.consumers)
    if (c.place.file == f && accessOf(c.place).known()) return true;
  return f == p_.types[made_].definition.file;
}

std::tuple<int, size_t, std::string, uint32_t> HandOverWork::rank(const HandOverTask& w) const {
  Place place = w.type != kNone ? p_.types[w.type].definition : w.function != kNone ? p_.functions[w.function].declarations.front() : w.first();
  size_t depth = 0;  // base classes first
  if (w.type != kNone)
    for (TypeIndex t = w.type; depth < 9 && !p_.types[t].bases.empty() && p_.types[t].bases.front().type != kNone; ++depth) t = p_.types[t].bases.front().type;
  return {w.type == kNone ? 2 : !w.uses() ? 1 : 0, depth, p_.path(place), p_.line(place)};
}

}  // namespace elmcart
