#include "rework/wrap.h"

#include <algorithm>
#include <map>
#include <set>

#include "base/text.h"
#include "rework/hand_over.h"
#include "rework/signature.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class Wrapper {
 public:
  Wrapper(const Analysis& a, TypeIndex type, PlanMemory& memory)
      : a_(a), p_(a.program), type_(type), memory_(memory),
        // elmcart: accept tie.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
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
    return sites_.empty() ? "no member of another class that belongs to an object calls it" : "";
  }

  NextStep run() {
    collect();
    if (there_ == kNone) return writeWrapper();
    Given given;
    given.type = there_;
    given.value = f_->makeWrapper;
    given.beside = type_;
    for (const Site& site : sites_) {
      Consumer c;
      c.place = site.receiver;
      c.in = site.in;
      c.reach = true;
      bool mirrored = std::any_of(p_.types[there_].methods.begin(), p_.types[there_].methods.end(), [&](FunctionIndex m) { return p_.functions[m].name == p_.functions[site.member].name; });
      if (mirrored) given.consumers.push_back(c);
    }
    NextStep out = nextHandOverOf(a_, given, memory_);
    if (out.found && (out.step.kind == StepKind::Seam)) out.step.kind = StepKind::Wrap;
    return out;
  }

 private:
  struct Site {
    Place receiver;  // the class's name in front of the member's
    FunctionIndex in = kNone, member = kNone;
  };

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
        if (call.in == kNone || &p_.language(call.place.file) != &language_ || matchesAny(a_.config.tests, p_.path(call.place))) continue;
        const Function& in = p_.functions[call.in];
        if (in.owner == kNone || in.owner == type_ || in.owner == there_ || in.isStaticMember() || in.form == FunctionForm::Initialiser) continue;
        NodeId callee = file.child(call.place.node, Role::Callee);
        NodeId receiver = callee == kNoNode ? kNoNode : file.child(callee, Role::Receiver);
        bool named = receiver != kNoNode && file[receiver].kind == Kind::Name && p_.symbolAt({call.place.file, receiver}) == Symbol(Symbol::Sort::Type, type_);
        if (!named) continue;
        sites_.push_back({{call.place.file, receiver}, call.in, m});
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
    std::string members, names;
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
      members += (members.empty() ? "" : "\n") + filled(f_->wrapperMember, {{"signature", text}, {"class", class_}, {"member", name}, {"names", given}, {"return", gives(m, text) ? "return " : ""}, {"visibility", signatures.visibility()}});
      names += (names.empty() ? "" : ", ") + name;
    }
    if (members.empty()) return refuse("none of the members in use can be written elsewhere");
    std::string indent = scan_.indentOf(home), unit = unitIndent(p_, scan_, type_), newline = scan_.newlineOf(home.file);
    std::string text = laidOut(scan_, filled(f_->wrapper, {{"wrap", name_}, {"visibility", signatures.visibility()}, {"members", members}}), home.file, indent, unit);
    Step step;
    step.kind = StepKind::Wrap;
    step.subject = name_;
    if (f_->ownFile && signatures.isExported()) {
      step.edits.push_back({fileBeside(p_, home, name_), {0, 0}, signatures.headLines(home.file, members) + text + newline});
    } else {
      // Behind the class, so that what it is called by is known by then.
      uint32_t end = p_.node(home).span.end;
      while (end > 0 && isBlank(scan_.text(home.file)[end - 1])) --end;
      step.edits.push_back({p_.path(home), {end, end}, newline + newline + (f_->widelyApart ? newline : "") + indent + std::string(trim(text))});
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
    if (language_.handing->snake)
      if (size_t open = text.find('('); open != std::string::npos) {
        // A class's own first parameter gives way to the object's.
        size_t end = text.find_first_of(",)", open);
        if (text.substr(open + 1, end - open - 1) == "cls") text.replace(open + 1, 3, "self");
        else text.insert(open + 1, text[open + 1] == ')' ? "self" : "self, ");
      }
    return text;
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
    Place home = p_.functions[m].definition.known() ? p_.functions[m].definition : p_.functions[m].declarations.front();
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
  return Wrapper(analysis, static_cast<TypeIndex>(type), memory).refusal();
}

NextStep nextWrapStep(const Analysis& analysis, size_t type, PlanMemory& memory) { return Wrapper(analysis, static_cast<TypeIndex>(type), memory).run(); }

}  // namespace elmcart
