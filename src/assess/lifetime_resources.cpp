// Family "life": what shared objects own.
#include "assess/facts.h"
#include "assess/families.h"
#include "base/text.h"

namespace elmcart {
namespace {

// The call or the class by which a value takes a resource that must be given
// back, or empty: where objects are freed by hand their class sees to that.
std::string_view takenBy(const Program& p, Place value) {
  const LoweredFile& file = p.file(value);
  const Guarantees& g = p.guarantees(value.file);
  const Node& node = file[value.node];
  if (node.kind != Kind::Call && node.kind != Kind::Create) return {};
  NodeId named = file.child(value.node, node.kind == Kind::Call ? Role::Callee : Role::Type);
  std::string_view name = named == kNoNode ? std::string_view{} : file.name(named);
  if (node.kind == Kind::Call && (g.callTraits(name) & kTakesResource)) return name;
  if (node.kind == Kind::Call && file[named].kind == Kind::Member) {
    // fs.openSync: by the module's name and its own.
    NodeId receiver = file.child(named, Role::Receiver);
    std::string_view scope = receiver == kNoNode ? std::string_view{} : file.name(receiver);
    if (!scope.empty() && (g.callTraits(std::string(scope) + "::" + std::string(name)) & kTakesResource)) return name;
    return {};
  }
  bool given = file.child(value.node, Role::Argument) != kNoNode;
  return !g.freedByHand.holds && given && (g.typeTraits(lastPart(name)) & kFileResource) ? name : std::string_view{};
}

// Is what is named there given back, or handed to somebody who does that?
bool isReleasedAt(const Program& p, Place use) {
  Kind around = p.node(p.parent(use)).kind;
  if (around == Kind::Return || around == Kind::Create) return true;
  Place call = p.around(use, Kind::Call);
  NodeId callee = call.node == kNoNode ? kNoNode : p.file(call).child(call.node, Role::Callee);
  if (callee == kNoNode) return false;
  std::string_view name = p.file(call).name(callee);
  const Guarantees& g = p.guarantees(call.file);
  return (g.callTraits(name) & kReleasesResource) || lowerCase(lastPart(name)).rfind("close", 0) == 0 || isEndHook(g, lastPart(name));
}

}  // namespace

void checkNeverReleased(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless) continue;
    std::vector<VariableIndex> candidates;
    if (e.type != kNone && e.creation.time != CreationTime::Elsewhere)
      for (const StateField& field : e.state) candidates.push_back(field.variable);
    else if (e.type == kNone) candidates.push_back(e.slot);
    bool leaked = e.neverDestroyed && e.kind != EntityKind::StaticHolder;
    for (VariableIndex v : candidates) {
      const Variable& variable = p.variables[v];
      Place home = variable.declarations.front();
      uint32_t traits = p.traits(home.file, variable.type);
      const TypeUse& use = p.use(variable.type);
      Place taken;
      std::string what, reason;
      // A handle that is released by hand, or by nobody.
      bool released = false;
      for (uint32_t u : p.usesOfVariable[v]) {
        const Use& site = p.uses[u];
        Place up = p.parent(site.place);
        Place value;
        if (p.node(up).kind == Kind::Assign && p.node(site.place).role == Role::Target) value = {up.file, p.file(up).child(up.node, Role::Value)};
        if (p.node(site.place).kind == Kind::FieldInit) value = {site.place.file, p.file(site.place).child(site.place.node, Role::Argument)};
        if (value.known() && value.node != kNoNode)
          if (std::string_view name = takenBy(p, value); !name.empty()) taken = value, what = std::string(name);
        // By itself, or through a local that was given it: file = self._file; file.close()
        released |= isReleasedAt(p, site.place);
        NodeId given = p.node(up).kind == Kind::Assign && p.node(site.place).role == Role::Value ? p.file(up).child(up.node, Role::Target) : kNoNode;
        if (p.node(up).kind == Kind::Variable && p.node(site.place).role == Role::Initialiser) given = up.node;
        Symbol local = given == kNoNode ? Symbol{} : p.symbolAt({up.file, given});
        if (local.is(Symbol::Sort::Variable) && p.variables[local.index()].storage == Storage::Local)
          for (uint32_t l : p.usesOfVariable[local.index()]) released |= isReleasedAt(p, p.uses[l].place);
      }
      NodeId initial = p.file(home).child(home.node, Role::Initialiser);
      if (initial != kNoNode)
        if (std::string_view name = takenBy(p, {home.file, initial}); !name.empty()) taken = {home.file, initial}, what = std::string(name);
      if (taken.known() && !released && (use.has(kPointer) || use.decl == kNone)) {
        reason = std::string(p.text(variable.name)) + " is acquired with " + what + ", and no path releases it";
      } else if (leaked && !use.has(kPointer | kReference) && (traits & (kFileResource | kThreadType)) && !taken.known()) {
        // Its destructor would release it, but the object is never destroyed.
        bool closed = false;
        for (uint32_t u : p.usesOfVariable[v]) {
          Place up = p.parent(p.uses[u].place);
          if (p.node(up).kind == Kind::Member && (p.nameOf(up) == "close" || p.nameOf(up) == "join" || p.nameOf(up) == "detach")) closed = true;
        }
        if (closed) continue;
        taken = home;
        reason = std::string(p.text(variable.name)) + " would be released by the destructor of " + e.shown + ", which never runs";
      } else {
        continue;
      }
      Finding f = makeFinding(s, infoOf("lifetime.never-released"), i, Sureness::Likely);
      f.place = taken;
      f.message = e.shown + " owns a resource that is never released: " + reason + ".";
      f.evidence.push_back({home, "the resource is kept here"});
      if (!(taken == home)) f.evidence.push_back({taken, "the resource is acquired here"});
      f.evidence.push_back({e.creation.place.known() ? e.creation.place : e.place, "the owner is made here; its end: " + e.end});
      f.advice = Advice::SafeInit;
      out.push_back(std::move(f));
    }
  }
}

}  // namespace elmcart
