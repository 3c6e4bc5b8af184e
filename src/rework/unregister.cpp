#include "rework/unregister.h"

#include <algorithm>
#include <array>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/writing.h"

namespace elmcart {
namespace {

// What a function that takes out is called beside one that puts in.
std::string oppositeOf(const std::string& name) {
  struct Pair {
    std::string_view in, out;
  };
  static constexpr auto kPairs = std::to_array<Pair>({{"attach", "detach"}, {"subscribe", "unsubscribe"}, {"register", "unregister"}, {"add", "remove"}, {"listen", "unlisten"}, {"connect", "disconnect"}, {"enter", "leave"}, {"join", "leave"}, {"watch", "unwatch"}, {"put", "remove"}});
  std::string lower = lowerCase(name);
  for (const Pair& pair : kPairs) {
    if (lower.rfind(pair.in, 0) != 0) continue;
    std::string out(pair.out);
    if (std::isupper(static_cast<unsigned char>(name[0]))) out[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(out[0])));
    return out + name.substr(pair.in.size());
  }
  if (name.find('_') != std::string::npos) return "remove_" + name;
  std::string out = std::isupper(static_cast<unsigned char>(name[0])) ? "Remove" : "remove";
  out += name;
  out[6] = static_cast<char>(std::toupper(static_cast<unsigned char>(out[6])));
  return out;
}

class Unregisterer {
 public:
  Unregisterer(const Analysis& a, size_t entity, PlanMemory& memory)
      : p_(a.program), entity_(entity), e_(a.survey.entities[entity]), memory_(memory),
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), s_(a.subject()), m_(p_.language(e_.place.file).mending) {}

  std::string refusal() const {
    bool any = std::any_of(s_.registrations.begin(), s_.registrations.end(), [&](const Registration& r) { return r.entity == entity_ && dangles(s_, r); });
    return any ? "" : "whoever puts itself into a list of it takes itself out again";
  }

  NextStep run() {
    NextStep out;
    out.finished = true;
    for (const Registration& r : s_.registrations) {
      if (r.entity != entity_ || !dangles(s_, r)) continue;
      edits_.clear();
      Step step;
      std::string reason = plan(r, step);
      if (!reason.empty() || memory_.refused.count(step.key())) {
        if (!reason.empty()) out.byHand.push_back({p_.path(r.place), p_.line(r.place), reason, true});
        out.finished = false;
        continue;
      }
      step.edits = std::move(edits_);
      out.found = true;
      out.step = std::move(step);
      return out;
    }
    return out;
  }

 private:
  std::string_view source(FileIndex f) { return scan_.text(f); }
  std::string nameOf(TypeIndex t) const { return std::string(p_.text(p_.types[t].name)); }
  std::string wordAt(FileIndex f, uint32_t at) {
    std::string_view text = source(f);
    uint32_t end = at;
    while (end < text.size() && isWordByte(text[end])) ++end;
    return std::string(text.substr(at, end - at));
  }

  // Plans one step for a registration; a text: why it has to be done by hand.
  std::string plan(const Registration& r, Step& step) {
    if (r.asFunction) return "a function is listed, which nothing tells from others: keep what registering hands back, and undo it by that";
    if (std::any_of(p_.types[r.subscriber].methods.begin(), p_.types[r.subscriber].methods.end(), [&](FunctionIndex m) { return p_.functions[m].modifiers & kInMacro; })) return "its class is written by a macro";
    std::string itself = "this";
    for (NodeId c : argumentsOf(p_.file(r.place), r.place.node))
      if (NodeId at = bareExpression(p_.file(r.place), c); p_.file(r.place)[at].kind == Kind::This) itself = scan_.nodeText({r.place.file, at});
    FunctionIndex remover = removerOf(p_, r.collection);
    if (r.by != kNone && remover == kNone) return openStep(r, step);
    return unregisterStep(r, remover, itself, step);
  }

  // ----- the list's owner can take one out again

  // The list as the code that adds to it writes it; empty: it is not plain to see.
  std::string listText(const Registration& r) {
    const LoweredFile& file = p_.file(r.kept);
    if (file[r.kept.node].kind == Kind::Call) {
      NodeId callee = file.child(r.kept.node, Role::Callee);
      if (callee == kNoNode) return "";
      NodeId receiver = file[callee].kind == Kind::Member ? file.child(callee, Role::Receiver) : kNoNode;
      if (receiver != kNoNode) return scan_.nodeText({r.kept.file, receiver});
      std::vector<NodeId> arguments = argumentsOf(file, r.kept.node);
      return arguments.empty() ? "" : scan_.nodeText({r.kept.file, arguments.front()});
    }
    NodeId receiver = appendedTo(file, r.kept.node);
    return receiver == kNoNode ? "" : scan_.nodeText({r.kept.file, receiver});
  }

  std::string takingOut(VariableIndex collection, const std::string& list, const std::string& value) {
    bool set = lowerCase(p_.text(p_.use(p_.variables[collection].type).name)).find("set") != std::string::npos;
    return filled(set && !m_->takeOutOfSet.empty() ? m_->takeOutOfSet : m_->takeOut, {{"list", list}, {"value", value}});
  }
  bool isTable(const Registration& r) const {
    uint32_t traits = variableTraits(p_, r.collection);
    return (traits & kKeyedCollection) && p_.node(r.kept).kind != Kind::Assign;
  }

  std::string openStep(const Registration& r, Step& step) {
    const Function& puts = p_.functions[r.by];
    std::string list = listText(r);
    if (!puts.definition.known() || puts.parameters.size() != 1 || list.empty() || isTable(r)) return "nothing takes one out of " + std::string(p_.text(p_.variables[r.collection].qualified)) + ", and how that is to be done is not plain to see";
    const LoweredFile& file = p_.file(puts.definition);
    NodeId body = file.child(puts.definition.node, Role::Body);
    bool inside = body != kNoNode && r.kept.file == puts.definition.file && p_.isInside(r.kept, body);
    if (!inside || anyNode(file, body, [&](NodeId n) { return file[n].kind == Kind::Return && file.child(n, Role::Value) != kNoNode && !p_.isInside(r.kept, n); })) return functionText(p_, r.by) + " does more than put it into the list";
    // What it is given, as the code that keeps it writes it.
    NodeId kept = p_.node(r.kept).kind == Kind::Assign ? p_.file(r.kept).child(r.kept.node, Role::Value) : kNoNode;
    if (std::vector<NodeId> given = argumentsOf(p_.file(r.kept), r.kept.node); kept == kNoNode && !given.empty()) kept = given.back();
    std::string value = kept == kNoNode ? std::string(p_.text(p_.variables[puts.parameters[0]].name)) : scan_.nodeText({r.kept.file, kept}), old = wordAt(puts.definition.file, p_.node(puts.definition).nameBegin), name = oppositeOf(old);
    if (std::any_of(p_.types[puts.owner == kNone ? r.subscriber : puts.owner].methods.begin(), p_.types[puts.owner == kNone ? r.subscriber : puts.owner].methods.end(), [&](FunctionIndex m) { return p_.text(p_.functions[m].name).substr(0, name.size()) == name; })) return "there is a " + name + " already, which does not take it out";
    FileIndex f = puts.definition.file;
    const Node& node = p_.node(puts.definition);
    const Node& block = file[body];
    std::string_view text = source(f);
    std::string newline = scan_.newlineOf(f), indent = scan_.indentOf(puts.definition), unit = puts.owner != kNone && p_.types[puts.owner].definition.file == f && !indent.empty() ? unitIndent(p_, scan_, puts.owner) : bodyUnit(puts.definition, body);
    bool braces = text[block.span.begin] == '{';
    std::string statement = takingOut(r.collection, list, value);
    bool labels = p_.language(f).owning != nullptr;
    Place inClass = puts.owner != kNone ? declarationIn(r.by, puts.owner) : Place{};
    step.kind = StepKind::Open;
    step.subject = functionText(p_, r.by);
    step.title = e_.name + " can take one out of " + std::string(p_.text(p_.variables[r.collection].name)) + " again: " + name + ", beside " + old;
    if (labels) {
      // One line in the class: what it is given is named as where it is defined.
      if (!inClass.known()) return "the class that keeps the list could not be read";
      uint32_t close = scan_.parameterListEnd(puts.definition);
      size_t open = text.find('(', node.nameBegin);
      if (close == 0 || open == std::string_view::npos) return "the parameters of " + functionText(p_, r.by) + " could not be read";
      std::string parameters(text.substr(open, close - open));
      std::string member = std::string(puts.modifiers & kStatic ? "static " : "") + "void " + name + parameters + " { " + statement + " }";
      lineBelow(inClass, member);
      if (!m_->takeOutImport.empty() && statement.find("std::remove") != std::string::npos) scan_.addInclude(inClass.file, std::string(m_->takeOutImport), edits_);
      return "";
    }
    std::string head(text.substr(node.span.begin, block.span.begin - node.span.begin));
    size_t at = node.nameBegin - node.span.begin;
    head.replace(at, old.size(), name);
    std::string laid = laidOut(scan_, statement, f, indent + unit, unit);
    std::string member = newline + newline + indent + (braces ? head + "{" + newline + indent + unit + laid + newline + indent + "}" : std::string(head.substr(0, head.find_last_not_of(" \t\r\n") + 1)) + newline + indent + unit + laid);
    if (!braces && trim(head).back() != ':') return "the body of " + functionText(p_, r.by) + " could not be read";
    uint32_t end = scan_.contentEnd(f, std::max(node.span.end, block.span.end));
    edits_.push_back({p_.path(puts.definition), {end, end}, member});
    // Where it is declared beside, it is so too.
    for (Place place : puts.declarations) {
      if (place == puts.definition) continue;
      std::string declared = scan_.nodeText(place);
      size_t from = p_.node(place).nameBegin - p_.node(place).span.begin;
      declared.replace(from, old.size(), name);
      lineBelow(place, declared);
    }
    return "";
  }

  Place declarationIn(FunctionIndex f, TypeIndex type) const {
    Place home = p_.types[type].definition;
    for (Place place : p_.functions[f].declarations)
      if (place.file == home.file && p_.isInside(place, home.node)) return place;
    return {};
  }
  std::string bodyUnit(Place function, NodeId body) {
    std::string indent = scan_.indentOf(function);
    for (NodeId c : children(p_.file(function), body)) {
      std::string inner = scan_.indentOf({function.file, c});
      if (inner.size() > indent.size()) return inner.substr(indent.size());
    }
    return "    ";
  }
  void lineBelow(Place place, const std::string& line) {
    uint32_t end = scan_.contentEnd(place.file, p_.node(place).span.end);
    edits_.push_back({p_.path(place), {end, end}, scan_.newlineOf(place.file) + scan_.indentOf(place) + line});
  }

  // ----- the subscriber takes itself out

  // What the call that registers is made on.
  NodeId receiverOf(const Registration& r) const {
    const LoweredFile& file = p_.file(r.place);
    NodeId callee = file.child(r.place.node, Role::Callee);
    return callee != kNoNode && file[callee].kind == Kind::Member ? file.child(callee, Role::Receiver) : kNoNode;
  }

  // How code that runs when it ends names the list's owner; empty: it cannot.
  std::string ownerText(const Registration& r, std::string& text) {
    const LoweredFile& file = p_.file(r.place);
    NodeId receiver = receiverOf(r);
    text = scan_.nodeText(r.place);
    if (r.global || receiver == kNoNode) return "";
    Symbol symbol = p_.symbolAt({r.place.file, receiver});
    if (!symbol.is(Symbol::Sort::Variable)) return "what it registers with is not kept anywhere: keep it in a field";
    const Variable& given = p_.variables[symbol.index()];
    if (given.storage == Storage::Field && given.owner == r.subscriber) return "";
    // A parameter that a field keeps.
    for (VariableIndex field : p_.types[r.subscriber].fields) {
      for (uint32_t u : p_.usesOfVariable[field]) {
        const Use& use = p_.uses[u];
        const LoweredFile& at = p_.file(use.place);
        NodeId value = p_.node(use.place).kind == Kind::FieldInit ? at.child(use.place.node, Role::Argument) : p_.node(p_.parent(use.place)).kind == Kind::Assign ? at.child(p_.parent(use.place).node, Role::Value) : kNoNode;
        if (value == kNoNode) continue;
        Symbol from = p_.symbolAt({use.place.file, bareExpression(at, value)});
        if (!from.is(Symbol::Sort::Variable) || from.index() != symbol.index() || use.in != r.in) continue;
        bool pointer = p_.use(p_.variables[field].type).has(kPointer), reference = p_.use(given.type).has(kReference);
        if (p_.guarantees(r.place.file).freedByHand.holds && pointer == reference) return "what it registers with is kept in another way than it is used";
        std::string name(p_.text(p_.variables[field].name)), word = scan_.nodeText({r.place.file, receiver});
        if (p_.node(use.place).kind == Kind::Member) name = scan_.nodeText(use.place);
        text.replace(file[receiver].span.begin - file[r.place.node].span.begin, word.size(), name);
        return "";
      }
    }
    return "what it registers with is not kept anywhere: keep it in a field";
  }

  std::string unregisterStep(const Registration& r, FunctionIndex remover, const std::string& itself, Step& step) {
    std::string statement;
    if (std::string reason = ownerText(r, statement); !reason.empty()) return reason;
    FileIndex f = r.place.file;
    const LoweredFile& file = p_.file(r.place);
    if (r.by != kNone) {
      const Function& takes = p_.functions[remover];
      if (takes.mostArguments != p_.functions[r.by].mostArguments || takes.owner != p_.functions[r.by].owner || (takes.modifiers & kPrivate)) return functionText(p_, remover) + " takes one out, but is called in another way than " + functionText(p_, r.by);
      NodeId callee = file.child(r.place.node, Role::Callee);
      if (callee == kNoNode || file[callee].nameBegin < file[r.place.node].span.begin) return "the call could not be read";
      std::string old = wordAt(f, file[callee].nameBegin);
      size_t at = statement.rfind(old + scan_.nodeText(r.place).substr(file[callee].nameBegin - file[r.place.node].span.begin + old.size()));
      if (at == std::string::npos) return "the call could not be read";
      std::string name = wordAt(takes.definition.file, p_.node(takes.definition).nameBegin);
      statement.replace(at, old.size(), name);
    } else {
      std::string list = listText(r);
      if (list.empty() || isTable(r)) return "how it is to be taken out of the list is not plain to see";
      statement = takingOut(r.collection, list, itself);
    }
    std::string_view text = source(f);
    bool ends = r.by != kNone && file[r.place.node].span.end < text.size() && text[file[r.place.node].span.end] == ';';
    if (ends) statement += ";";
    step.kind = StepKind::Unregister;
    step.subject = std::string(p_.text(p_.types[r.subscriber].qualified));
    FunctionIndex dies = endOf(p_, r.subscriber);
    bool byHand = p_.guarantees(f).freedByHand.holds;
    std::vector<Place> copies;
    for (uint32_t c : p_.creationsOfType[r.subscriber])
      if (p_.creations[c].copy) copies.push_back(p_.creations[c].place);
    if (byHand && !copies.empty()) return nameOf(r.subscriber) + " is copied at " + p_.path(copies.front()) + ":" + std::to_string(p_.line(copies.front())) + ": a copy is not listed; decide first whether it should be";
    step.title = nameOf(r.subscriber) + " takes itself out of " + std::string(p_.text(p_.variables[r.collection].name)) + (dies != kNone ? " in " + functionText(p_, dies) : " in a destructor of its own") + (byHand && p_.isCopyable(r.subscriber, f) ? ", and cannot be copied any more" : "");
    if (dies != kNone) {
      const Function& end = p_.functions[dies];
      if (!end.definition.known() || end.modifiers & kInMacro) return functionText(p_, dies) + " has no body in this tree";
      NodeId body = p_.file(end.definition).child(end.definition.node, Role::Body);
      if (body == kNoNode) return functionText(p_, dies) + " has no body in this tree";
      // The object may bear another name there.
      std::string named = itself;
      forEachNode(p_.file(end.definition), body, [&](NodeId n) {
        if (p_.file(end.definition)[n].kind == Kind::This && p_.file(end.definition)[n].span.size() > 0) named = scan_.nodeText({end.definition.file, n});
      });
      bool same = itself == "this" || itself == "self" || itself == "$this";
      if (!same && named != itself) {
        if (size_t at = statement.rfind(itself); at != std::string::npos) statement.replace(at, itself.size(), named);
      }
      NodeId owner = receiverOf(r);
      Symbol kept = owner == kNoNode ? Symbol{} : p_.symbolAt({f, owner});
      bool ofFile = kept.is(Symbol::Sort::Variable) && p_.variables[kept.index()].storage == Storage::Global;
      auto used = p_.usesInFunction[dies];
      bool announced = ofFile && std::any_of(used.begin(), used.end(), [&](uint32_t u) { return p_.uses[u].variable == kept.index(); });
      if (ofFile && !announced && !m_->announce.empty()) statement = filled(m_->announce, {{"name", scan_.nodeText({f, owner})}}) + "\n" + statement;
      if (std::string reason = insertFirst(p_, scan_, {end.definition.file, body}, statement, edits_); !reason.empty()) return reason;
    } else if (!m_->ending.empty() && byHand) {
      if (std::string reason = addDestructor(r, statement); !reason.empty()) return reason;
    } else {
      return "nothing tells " + nameOf(r.subscriber) + " its end: give it a method that is called then, and call it where its owner ends";
    }
    const Sound* sound = p_.language(f).sound;
    if (byHand && p_.isCopyable(r.subscriber, f) && sound && !sound->noCopies.empty()) {
      Place home = p_.types[r.subscriber].definition;
      std::string joined;
      for (const std::string& line : splitLines(filled(sound->noCopies, {{"class", nameOf(r.subscriber)}}))) joined += (joined.empty() ? "" : scan_.newlineOf(home.file) + memberIndent(p_, scan_, r.subscriber)) + line;
      scan_.addPublicMember(r.subscriber, joined, edits_);
    }
    return "";
  }

  std::string addDestructor(const Registration& r, const std::string& statement) {
    const Function& in = p_.functions[r.in];
    Place home = p_.types[r.subscriber].definition;
    if (!home.known() || !in.definition.known()) return "its class could not be read";
    for (FunctionIndex m : p_.types[r.subscriber].methods)
      if (p_.functions[m].form == FunctionForm::Destructor) return "its destructor has no body in this tree";
    std::string name = nameOf(r.subscriber);
    bool inside = in.definition.file == home.file && p_.isInside(in.definition, home.node);
    std::string whole = filled(m_->ending, {{"class", name}, {"statement", statement}});
    if (inside) {
      scan_.addPublicMember(r.subscriber, whole, edits_);
      return "";
    }
    // Declared in the class, defined beside what registers.
    const Node& node = p_.node(in.definition);
    std::string before(source(in.definition.file).substr(node.span.begin, node.nameBegin - node.span.begin));
    size_t space = before.find_last_of(" \t\n*&");
    if (space != std::string::npos) before = before.substr(space + 1);
    if (before.find("::") == std::string::npos) return "its class could not be read";
    std::string newline = scan_.newlineOf(in.definition.file);
    scan_.addPublicMember(r.subscriber, "~" + name + "();", edits_);
    uint32_t end = scan_.contentEnd(in.definition.file, node.span.end);
    edits_.push_back({p_.path(in.definition), {end, end}, newline + newline + before + whole});
    return "";
  }

  const Program& p_;
  size_t entity_;
  const Entity& e_;
  PlanMemory& memory_;
  SourceScan scan_;
  const Subject& s_;
  const Mending* m_ = nullptr;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string unregisterRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return Unregisterer(analysis, entity, memory).refusal();
}

NextStep nextUnregisterStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return Unregisterer(analysis, entity, memory).run(); }

}  // namespace elmcart
