#include "rework/wrap.h"

#include <algorithm>
#include <map>
#include <set>

#include "base/text.h"
#include "rework/moves/inject.h"
#include "rework/signature.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class Wrapper {
 public:
  Wrapper(const Analysis& a, TypeIndex type, PlanMemory& memory)
      : a_(a), p_(a.program), type_(type), memory_(memory),
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), language_(a.program.language(a.program.types[type].definition.file)), f_(language_.facing) {
    class_ = plainName(p_, type_);
    name_ = class_ + "Wrapper";
    there_ = typeBeside(p_, type_, name_);
  }

  std::string refusal() {
    const TypeDecl& decl = p_.types[type_];
    if (!decl.typeParameters.empty()) return "it has type parameters";
    if (p_.scopes[decl.parent].sort == Scope::Sort::Type) return "it is declared inside another class";
    bool objects = decl.form != TypeForm::Object && std::any_of(decl.methods.begin(), decl.methods.end(), [&](FunctionIndex m) { return p_.functions[m].form == FunctionForm::Function && !isStatic(m); });
    if (objects) return "it has objects of its own: inject them";
    for (const Entity& e : a_.survey.entities)
      if (e.type == type_ && decl.form != TypeForm::Object && (e.kind == EntityKind::Singleton || e.kind == EntityKind::SharedInstance)) return "it has an object that is handed out: inject it";
    collect();
    if (!sites_.empty()) return "";
    if (there_ == kNone) return "no member of another class that belongs to an object calls it";
    // Through the wrapper, all of them: is there more to hand in?
    NextStep next = run();
    return next.found || !next.byHand.empty() ? "" : "its wrapper is in use, and handed in";
  }

  NextStep run() {
    collect();
    if (there_ == kNone) return writeWrapper();
    if (!f_->wrapperAccessPoint.empty()) return throughAccessPoint();
    Given given;
    given.type = there_;
    given.value = f_->makeWrapper;
    given.beside = type_;
    for (const Site& site : sites_) {
      Consumer c;
      c.place = site.receiver;
      c.in = site.in;
      c.reach = true;
      if (isMirrored(site)) given.consumers.push_back(c);
    }
    NextStep out = nextInjectOf(a_, given, memory_);
    if (out.found && (out.step.kind == StepKind::Seam)) out.step.kind = StepKind::Wrap;
    return out;
  }

 private:
  struct Site {
    Place receiver;  // the class's name in front of the member's
    Span span;       // what the object stands for
    FunctionIndex in = kNone, member = kNone;
  };

  // Has the wrapper a member for it?
  bool isMirrored(const Site& site) const {
    return std::any_of(p_.types[there_].methods.begin(), p_.types[there_].methods.end(), [&](FunctionIndex m) { return p_.functions[m].name == p_.functions[site.member].name; });
  }

  // The wrapper has an accessor: class by class calls go through that, and then it is injected.
  NextStep throughAccessPoint() {
    std::vector<TypeIndex> order;
    std::map<TypeIndex, std::vector<Site>> byUnit;
    for (const Site& site : sites_) {
      if (!isMirrored(site)) continue;
      TypeIndex unit = p_.functions[site.in].owner;
      if (byUnit[unit].empty()) order.push_back(unit);
      byUnit[unit].push_back(site);
    }
    std::string accessPoint = filled(f_->wrapperAccessPoint, {{"wrap", name_}});
    NextStep out = firstOf(order.size(), memory_, [&](size_t i) {
      const std::vector<Site>& sites = byUnit[order[i]];
      Attempt one{{}, "", p_.path(sites.front().receiver), p_.line(sites.front().receiver)};
      one.step.kind = StepKind::Wrap;
      one.step.subject = std::string(p_.text(p_.types[order[i]].qualified));
      one.step.title = plainName(p_, order[i]) + " calls " + class_ + " through the one " + name_ + " that there is";
      one.step.callSites = sites.size();
      for (const Site& site : sites) {
        bool ofClass = scan_.text(site.receiver.file).substr(site.span.end - 2, 2) == "::";
        one.step.edits.push_back({p_.path(site.receiver), site.span, accessPoint + (ofClass ? "." : "")});
      }
      return one;
    });
    if (out.found) return out;
    for (size_t e = 0; e < a_.survey.entities.size(); ++e) {
      if (a_.survey.entities[e].type != there_ || !injectRefusal(a_, e).empty()) continue;
      NextStep next = nextInjectStep(a_, e, memory_);
      next.byHand.insert(next.byHand.begin(), out.byHand.begin(), out.byHand.end());
      return next;
    }
    return out;
  }

  bool isStatic(FunctionIndex m) const { return p_.functions[m].isStaticMember() || p_.types[type_].form == TypeForm::Object; }

  // Calls of its members by its name, in members of other classes that belong to an object.
  void collect() {
    if (collected_) return;
    collected_ = true;
    for (FunctionIndex m : p_.types[type_].methods) {
      if (!isStatic(m) || p_.functions[m].form != FunctionForm::Function) continue;
      for (uint32_t c : p_.callsOfFunction[m]) {
        const CallSite& call = p_.calls[c];
        const LoweredFile& file = p_.file(call.place);
        if (call.in == kNone || &p_.language(call.place.file) != &language_ || a_.config.tests.match(p_.path(call.place))) continue;
        const Function& in = p_.functions[call.in];
        if (in.owner == kNone || in.owner == type_ || in.owner == there_ || in.isStaticMember() || in.form == FunctionForm::Initialiser) continue;
        NodeId callee = file.child(call.place.node, Role::Callee);
        NodeId receiver = callee == kNoNode ? kNoNode : file.child(callee, Role::Receiver);
        bool named = receiver != kNoNode && file[receiver].kind == Kind::Name && p_.symbolAt({call.place.file, receiver}) == Symbol(Symbol::Sort::Type, type_);
        if (named) {
          sites_.push_back({{call.place.file, receiver}, file[receiver].span, call.in, m});
        } else if (callee != kNoNode && file[callee].kind == Kind::Name && lastPart(scopePart(file.name(callee))) == class_) {
          // Tides::height, harbour::Tides::height: the last name in front of the member's, with its sign.
          std::string_view written = scan_.text(call.place.file).substr(file[callee].span.begin, file[callee].span.size());
          size_t at = written.find(class_ + "::");
          uint32_t begin = file[callee].span.begin + static_cast<uint32_t>(at);
          if (at != std::string_view::npos) sites_.push_back({{call.place.file, callee}, {begin, begin + static_cast<uint32_t>(class_.size()) + 2}, call.in, m});
        }
      }
    }
    std::sort(sites_.begin(), sites_.end(), [&](const Site& x, const Site& y) { return std::make_pair(p_.path(x.receiver), x.receiver.node) < std::make_pair(p_.path(y.receiver), y.receiver.node); });
  }

  NextStep writeWrapper() {
    NextStep out;
    Place home = p_.types[type_].definition;
    auto refuse = [&](const std::string& reason) {
      out.byHand.push_back({p_.path(home), p_.line(home), reason, true});
      return out;
    };
    Signatures signatures(p_, scan_, language_, type_);
    std::set<FunctionIndex> used;
    for (const Site& site : sites_) used.insert(site.member);
    std::string members, names, declarations;
    for (FunctionIndex m : inTextOrder(p_, used)) {
      Signature one = signatures.signatureOf(m);
      std::string name(p_.text(p_.functions[m].name));
      if (!one.reason.empty()) {
        out.byHand.push_back({p_.path(home), p_.line(p_.functions[m].declarations.front()), one.reason + ": it stays outside of " + name_, false});
        continue;
      }
      std::string text = withObject(one.text);
      std::string given;
      for (VariableIndex v : p_.functions[m].parameters) given += (given.empty() ? "" : ", ") + argumentFor(v);
      if (given.find("...") != std::string::npos) {
        out.byHand.push_back({p_.path(home), p_.line(p_.functions[m].declarations.front()), name + " takes any number of arguments: it stays outside of " + name_, false});
        continue;
      }
      bool oneLine = f_->wrapperMember.find('\n') + 1 == f_->wrapperMember.size();
      members += (members.empty() || oneLine ? "" : "\n") + filled(f_->wrapperMember, {{"signature", text}, {"class", class_}, {"member", name}, {"names", given}, {"return", gives(m, text) ? "return " : ""}, {"visibility", signatures.visibility()}, {"call", f_->namedByParts ? callByParts(m) : ""}});
      declarations += filled(f_->wrapperDeclaration, {{"signature", text}});
      names += (names.empty() ? "" : ", ") + name;
    }
    if (members.empty()) return refuse("none of the members in use can be written elsewhere");
    std::string indent = scan_.indentOf(home), unit = unitIndent(p_, scan_, type_), newline = scan_.newlineOf(home.file);
    std::string text = laidOut(scan_, filled(f_->wrapper, {{"wrap", name_}, {"visibility", signatures.visibility()}, {"members", f_->wrapperBody.empty() ? members : declarations}}), home.file, indent, unit);
    Step step;
    step.kind = StepKind::Wrap;
    step.subject = name_;
    if (f_->ownFile && signatures.isExported()) {
      step.edits.push_back({fileBeside(p_, home, name_), {0, 0}, signatures.headLines(home.file, members) + text + newline});
    } else {
      // Behind the class, so that what it is called by is known by then.
      uint32_t end = p_.node(home).span.end;
      if (end < scan_.text(home.file).size() && scan_.text(home.file)[end] == ';') ++end;
      while (end > 0 && isBlank(scan_.text(home.file)[end - 1])) --end;
      step.edits.push_back({p_.path(home), {end, end}, newline + newline + (f_->widelyApart ? newline : "") + indent + std::string(trim(text))});
    }
    if (!f_->wrapperBody.empty()) {
      // Behind what ends the class where its members are written.
      Place last;
      for (FunctionIndex m : used)
        if (Place place = p_.functions[m].definition; place.known() && (!last.known() || p_.node(place).span.end > p_.node(last).span.end)) last = place;
      size_t end = last.known() ? scan_.text(last.file).find("@end", p_.node(last).span.end) : std::string_view::npos;
      if (end == std::string_view::npos) return refuse("where its members are written could not be read");
      uint32_t at = static_cast<uint32_t>(end) + 4;
      std::string gap = scan_.newlineOf(last.file) + scan_.newlineOf(last.file);
      step.edits.push_back({p_.path(last), {at, at}, gap + laidOut(scan_, filled(f_->wrapperBody, {{"wrap", name_}, {"members", members}}), last.file, "", unit)});
    }
    if (memory_.refused.count(step.key())) return refuse(std::string(kTakenBack));
    step.title = name_ + " has what is used of " + class_ + " as members of an object: " + names;
    out.found = true;
    out.step = std::move(step);
    return out;
  }

  // static int height(int day): without what says that it needs no object.
  std::string withObject(std::string text) const {
    std::vector<std::string_view> words(f_->dropped.begin(), f_->dropped.end());
    words.insert(words.end(), {"static", "class"});
    text = withoutLeadingWords(text, words);
    if (text[0] == '+') text[0] = '-';
    if (language_.handing && language_.handing->snake)
      if (size_t open = text.find('('); open != std::string::npos) {
        // A class's own first parameter gives way to the object's.
        size_t end = text.find_first_of(",)", open);
        if (text.substr(open + 1, end - open - 1) == "cls") text.replace(open + 1, 3, "self");
        else text.insert(open + 1, text[open + 1] == ')' ? "self" : "self, ");
      }
    return text;
  }

  // [HOTides heightOn:day at:hour]
  std::string callByParts(FunctionIndex m) const {
    std::string name(p_.text(p_.functions[m].name)), call = "[" + class_;
    size_t position = 0;
    for (VariableIndex v : p_.functions[m].parameters) {
      size_t colon = name.find(':', position);
      call += " " + name.substr(position, colon == std::string::npos ? colon : colon + 1 - position) + argumentFor(v);
      position = colon == std::string::npos ? name.size() : colon + 1;
    }
    return call + (position == 0 ? " " + name : "") + "]";
  }

  std::string argumentFor(VariableIndex v) const {
    const Variable& variable = p_.variables[v];
    std::string name(p_.text(variable.name));
    Place home = variable.declarations.front();
    std::string written = scan_.nodeText(home);
    if (p_.node(home).has(kPack) || written.find("...") != std::string::npos || written.substr(0, 1) == "*" || written.find("vararg ") != std::string::npos || written.find("params ") != std::string::npos) return "...";
    // func height(on day: Int): called by its label.
    if (f_->labelsArguments) {
      size_t colon = written.find(':');
      std::string head(trim(written.substr(0, colon)));
      size_t blank = head.find(' ');
      std::string label = blank == std::string::npos ? head : head.substr(0, blank);
      return label == "_" ? name : label + ": " + name;
    }
    if (name[0] != '$' && written.find('$') != std::string::npos) name = "$" + name;
    return name;
  }

  bool gives(FunctionIndex m, const std::string& signature) const {
    Place home = p_.functions[m].home();
    NodeId result = p_.file(home).child(home.node, Role::Type);
    if (result != kNoNode) {
      std::string_view name = p_.file(home).name(result);
      return name != "void" && name != "Unit" && name != "Void";
    }
    size_t close = signature.rfind(')');
    std::string_view behind = close == std::string::npos ? std::string_view{} : trim(std::string_view(signature).substr(close + 1));
    // Kotlin and Swift say nothing where nothing is given; scripts give what the other gives.
    return f_->nothingUnsaid ? !behind.empty() : true;
  }

  const Analysis& a_;
  const Program& p_;
  TypeIndex type_;
  PlanMemory& memory_;
  mutable SourceScan scan_;
  const Language& language_;
  const Facing* f_ = nullptr;
  std::string class_, name_;
  TypeIndex there_ = kNone;
  bool collected_ = false;
  std::vector<Site> sites_;
};

}  // namespace

std::string wrapRefusal(const Analysis& analysis, size_t type) {
  PlanMemory memory;
  memory.retire = true;  // is there anything that could be done?
  return Wrapper(analysis, static_cast<TypeIndex>(type), memory).refusal();
}

NextStep nextWrapStep(const Analysis& analysis, size_t type, PlanMemory& memory) { return Wrapper(analysis, static_cast<TypeIndex>(type), memory).run(); }

}  // namespace elmcart
