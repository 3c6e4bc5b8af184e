#include "rework/own.h"

#include <algorithm>
#include <set>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class Owner {
 public:
  Owner(const Analysis& a, FileIndex home, PlanMemory& memory)
      : a_(a), p_(a.program), memory_(memory), h_(a.program.language(home).owning),
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program) {}

  // ----- fields that a destructor deletes

  std::vector<VariableIndex> ownedFields(TypeIndex type) const {
    std::vector<VariableIndex> out;
    for (VariableIndex v : p_.types[type].fields)
      if (p_.use(p_.variables[v].type).has(kPointer) && p_.use(p_.variables[v].type).decl != kNone && isDeletedBy(v, type)) out.push_back(v);
    return out;
  }

  NextStep nextField(TypeIndex type) {
    std::vector<VariableIndex> fields = ownedFields(type);
    return firstOf(fields.size(), memory_, [&](size_t i) {
      VariableIndex v = fields[i];
      std::string name(p_.text(p_.variables[v].name));
      edits_.clear();
      Attempt out{{}, writeField(v, type), p_.path(home(v)), p_.line(home(v))};
      if (!out.reason.empty()) out.reason = name + ": " + out.reason;
      out.step.kind = StepKind::Own;
      out.step.subject = std::string(p_.text(p_.variables[v].qualified));
      out.step.title = plainName(p_, type) + " owns what " + name + " points to: nothing is deleted by hand";
      out.step.edits = std::move(edits_);
      return out;
    });
  }

  // ----- functions that hand out what their caller must free

  // Each return hands out a new object, or nothing. A text: why that is not so.
  std::string handsOutNew(FunctionIndex f) {
    const Function& fn = p_.functions[f];
    const TypeUse& result = p_.use(fn.result);
    if (!fn.definition.known()) return "it has no body in this tree";
    if (fn.form != FunctionForm::Function || !result.has(kPointer) || result.has(kReference) || result.decl == kNone) return "it hands out no object of a class of this tree by a bare pointer";
    if (fn.modifiers & (kVirtual | kOverride | kAbstract)) return "others stand for it, or it stands for others";
    if (fn.modifiers & kInMacro) return "it is written by a macro";
    returned_ = kNone;
    bool any = false;
    for (Place value : a_.subject().origins.returnsOf(f)) {
      if (p_.node(value).is(Kind::Literal, LiteralForm::Null)) continue;
      if (isNew(value)) {
        any = true;
        continue;
      }
      Symbol symbol = p_.symbolAt(value);
      if (!symbol.is(Symbol::Sort::Variable) || p_.node(value).kind != Kind::Name || p_.variables[symbol.index()].storage != Storage::Local) return "it may hand out what others own (" + at(value) + ")";
      if (returned_ != kNone && returned_ != symbol.index()) return "it hands out one of several locals";
      returned_ = symbol.index();
      Place initial = initialiserOf(p_, returned_);
      if (!initial.known() || !isNew(initial)) return "what it hands out is not made there";
      any = true;
    }
    return any ? "" : "it hands out nothing new";
  }

  NextStep nextResult(FunctionIndex f) {
    return firstOf(1, memory_, [&](size_t) {
      Place where = p_.functions[f].definition;
      Attempt out{{}, handsOutNew(f), {}, 0};
      if (out.reason.empty()) out.reason = writeResult(f, where);
      out.file = p_.path(where);
      out.line = p_.line(where);
      out.step.kind = StepKind::Own;
      out.step.subject = functionText(p_, f);
      out.step.title = out.step.subject + " hands out an owner, and its callers keep one";
      out.step.callSites = p_.callsOfFunction[f].size();
      out.step.edits = std::move(edits_);
      return out;
    });
  }

 private:
  std::string at(Place place) const { return p_.path(place) + ":" + std::to_string(p_.line(place)); }
  Place home(VariableIndex v) const { return p_.variables[v].declarations.front(); }
  bool isNew(Place value) const { return p_.node(value).is(Kind::Create, CreateForm::Heap) && !p_.node(value).has(kArray) && p_.file(value).child(value.node, Role::Placement) == kNoNode; }
  bool isNothing(Place value) const { return p_.node(value).is(Kind::Literal, LiteralForm::Null) || scan_.nodeText(value) == "0" || scan_.nodeText(value) == "NULL"; }

  bool isDeletedBy(VariableIndex v, TypeIndex type) const {
    return std::any_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
      const Use& use = p_.uses[u];
      return use.in != kNone && p_.functions[use.in].form == FunctionForm::Destructor && p_.functions[use.in].owner == type && p_.node(p_.parent(use.place)).kind == Kind::Destroy;
    });
  }

  void edit(Place place, Span span, std::string text) { edits_.push_back({p_.path(place), span, std::move(text)}); }

  // new T(a): as the library makes one with its owner.
  std::string made(Place value) {
    const LoweredFile& file = p_.file(value);
    std::string_view source = scan_.text(value.file);
    const Node& node = file[value.node];
    NodeId typeNode = file.child(value.node, Role::Type);
    if (typeNode == kNoNode) return "";
    std::string type = scan_.nodeText({value.file, typeNode}), arguments, behind(trim(source.substr(file[typeNode].span.end, node.span.end - file[typeNode].span.end)));
    bool open = true;
    if (const Creation* creation = creationAt(p_, value); creation && creation->constructor != kNone) open = !(p_.functions[creation->constructor].modifiers & (kPrivate | kProtected));
    if (behind.find('[') == 0) return "";
    if (behind.size() >= 2 && behind.front() == '(') arguments = behind.substr(1, behind.size() - 2);
    if (!open || (!behind.empty() && behind.front() == '{')) return filled(h_->type, {{"type", type}}) + "(" + scan_.nodeText(value) + ")";
    return filled(h_->make, {{"type", type}, {"arguments", arguments}});
  }

  // "T* name", with what stands for the type from then on. A text: why it cannot be written.
  std::string retype(Place declaration) {
    NodeId written = p_.file(declaration).child(declaration.node, Role::Type);
    if (written == kNoNode) return "its type is not written";
    std::string_view source = scan_.text(declaration.file);
    Span span = p_.file(declaration)[written].span;
    std::string text = scan_.nodeText({declaration.file, written});
    while (!text.empty() && (text.back() == '*' || text.back() == ' ')) text.pop_back();
    uint32_t end = span.end;
    while (end < source.size() && (source[end] == '*' || source[end] == ' ')) ++end;
    std::string_view between = source.substr(span.begin, end - span.begin);
    if (text == "auto") {  // auto, auto*
      if (between.find('*') != std::string_view::npos) edit(declaration, {span.begin, end}, "auto ");
      return "";
    }
    if (std::count(between.begin(), between.end(), '*') != 1) return "its type could not be read";
    if (source.find(',', end) < source.find(';', end) && p_.node(declaration).kind == Kind::Variable && source.find('(', end) > source.find(';', end)) return "it is declared together with others";
    edit(declaration, {span.begin, end}, filled(h_->type, {{"type", std::string(trim(text))}}) + " ");
    return "";
  }

  void include(FileIndex f) {
    std::string line(h_->import);
    if (scan_.text(f).find(line) != std::string_view::npos) return;
    for (const FileEdit& done : edits_)
      if (done.path == p_.files[f].path && done.text.find(line) != std::string::npos) return;
    scan_.addInclude(f, line, edits_);
  }

  std::string bare(Place use) { return filled(h_->bare, {{"name", scan_.nodeText(use)}}); }

  // delete x; as the last thing that is done with it needs no words.
  void giveBack(Place destroy, Place use, bool last) {
    Place statement = p_.parent(destroy);
    if (p_.node(statement).kind != Kind::ExpressionStatement) statement = destroy;
    if (!last) {
      edit(destroy, p_.node(destroy).span, filled(h_->free, {{"name", scan_.nodeText(use)}}));
      return;
    }
    std::string_view source = scan_.text(destroy.file);
    Span span = p_.node(statement).span;
    while (span.end < source.size() && (source[span.end] == ' ' || source[span.end] == ';')) ++span.end;
    uint32_t begin = scan_.lineBegin(destroy.file, span.begin);
    bool alone = trim(source.substr(begin, span.begin - begin)).empty() && (span.end >= source.size() || source[span.end] == '\n' || source[span.end] == '\r');
    if (alone) span = {begin, static_cast<uint32_t>(std::min(source.find('\n', span.end), source.size() - 1) + 1)};
    else while (span.begin > 0 && source[span.begin - 1] == ' ' && source[span.end] == ' ') --span.begin;
    edit(destroy, span, "");
  }

  // Is the statement the last of its function's body?
  bool isLast(Place destroy) const {
    Place at = destroy;
    for (Place up = p_.parent(at); up.node != kNoNode; at = up, up = p_.parent(up)) {
      if (p_.node(up).kind == Kind::If) return false;
      if (p_.node(up).kind != Kind::Block) continue;
      NodeId last = kNoNode;
      for (NodeId c : children(p_.file(up), up.node)) last = c;
      return last == at.node && p_.node(p_.parent(up)).kind == Kind::Function;
    }
    return false;
  }

  // What is done with a pointer that becomes an owner. A text: what an owner cannot do.
  std::string rewriteUses(VariableIndex v, bool field) {
    // Deletions at a destructor's end, or of a local where nothing follows, go together.
    for (uint32_t u : p_.usesOfVariable[v]) {
      const Use& use = p_.uses[u];
      Place place = use.place, up = p_.parent(place);
      const Node& parent = p_.node(up);
      Role role = p_.node(place).role;
      if (p_.node(place).has(kInMacro) || parent.has(kInMacro)) return "a macro uses it (" + at(place) + ")";
      if (p_.node(place).kind == Kind::FieldInit) {
        NodeId value = p_.file(place).child(place.node, Role::Argument);
        if (value == kNoNode) continue;
        if (std::string reason = take({place.file, value}); !reason.empty()) return reason;
        continue;
      }
      switch (parent.kind) {
        case Kind::Destroy: {
          bool ends = field ? isLast(up) || allBelowDelete(up) || isEmptiedNext(up, v) : isLastUse(v, place);
          giveBack(up, place, ends);
          continue;
        }
        case Kind::Member: case Kind::Dereference: case Kind::NullTest: case Kind::Logic: case Kind::If: case Kind::ExpressionStatement: case Kind::Capture: continue;
        case Kind::Assign:
          if (role == Role::Target) {
            if (std::string reason = take({up.file, p_.file(up).child(up.node, Role::Value)}); !reason.empty()) return reason;
            continue;
          }
          if (!field) return "it goes on to somebody else (" + at(place) + ")";
          edit(place, p_.node(place).span, bare(place));
          continue;
        case Kind::Compare: edit(place, p_.node(place).span, bare(place)); continue;
        case Kind::Conditional:
          if (role == Role::Condition) continue;
          return "it is chosen among others (" + at(place) + ")";
        case Kind::Return:
          if (!field && v == returned_) continue;  // the owner itself
          if (!field) return "it goes on to the caller (" + at(place) + ")";
          edit(place, p_.node(place).span, bare(place));
          continue;
        case Kind::Variable: case Kind::Call: case Kind::Create: case Kind::FieldInit:
          if (!field)
            if (std::string reason = staysOwned(up, place); !reason.empty()) return reason;
          edit(place, p_.node(place).span, bare(place));
          continue;
        default: return "it is used in a way that an owner is not (" + at(place) + ")";
      }
    }
    return "";
  }

  // Are all statements behind it in the body deletions too?
  bool allBelowDelete(Place destroy) const {
    Place at = destroy;
    for (Place up = p_.parent(at); up.node != kNoNode; at = up, up = p_.parent(up)) {
      if (p_.node(up).kind == Kind::If) return false;
      if (p_.node(up).kind != Kind::Block) continue;
      bool behind = false, all = true;
      for (NodeId c : children(p_.file(up), up.node)) {
        if (behind) {
          NodeId inner = p_.file(up)[c].firstChild;
          all &= p_.file(up)[c].kind == Kind::Destroy || (p_.file(up)[c].kind == Kind::ExpressionStatement && inner != kNoNode && p_.file(up)[inner].kind == Kind::Destroy);
        }
        behind |= c == at.node;
      }
      return all && p_.node(p_.parent(up)).kind == Kind::Function;
    }
    return false;
  }

  // delete lamp_; lamp_ = nullptr; says twice what an owner says once.
  bool isEmptiedNext(Place destroy, VariableIndex v) const {
    Place statement = p_.node(p_.parent(destroy)).kind == Kind::ExpressionStatement ? p_.parent(destroy) : destroy;
    NodeId next = p_.node(statement).nextSibling;
    if (next == kNoNode) return false;
    const LoweredFile& file = p_.file(statement);
    NodeId assign = file[next].kind == Kind::ExpressionStatement ? file[next].firstChild : next;
    if (assign == kNoNode || file[assign].kind != Kind::Assign) return false;
    NodeId target = file.child(assign, Role::Target), value = file.child(assign, Role::Value);
    return target != kNoNode && value != kNoNode && p_.links[statement.file].symbol[target] == Symbol(Symbol::Sort::Variable, v) && isNothing({statement.file, value});
  }

  bool isLastUse(VariableIndex v, Place place) const {
    return std::none_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) { return p_.uses[u].place.file == place.file && p_.node(p_.uses[u].place).span.begin > p_.node(place).span.begin; }) &&
           p_.around(place, Kind::If).node == kNoNode && p_.around(place, Kind::Loop).node == kNoNode;
  }

  // What an owner is given: a new object, nothing, or what hands out an owner.
  std::string take(Place value) {
    if (isNew(value)) {
      std::string text = made(value);
      if (text.empty()) return "how it is made could not be read (" + at(value) + ")";
      edit(value, p_.node(value).span, text);
      return "";
    }
    if (isNothing(value)) {
      if (scan_.nodeText(value) != "nullptr") edit(value, p_.node(value).span, "nullptr");
      return "";
    }
    Symbol callee = p_.node(value).kind == Kind::Call ? p_.symbolAt(value) : Symbol{};
    if (callee.is(Symbol::Sort::Function)) {
      std::string type = p_.typeText(p_.functions[callee.index()].result);
      if (type.find("unique_ptr") != std::string::npos) return "";
      return "it is given what " + functionText(p_, callee.index()) + " hands out by a bare pointer: make that own it first (" + at(value) + ")";
    }
    return "it is given what somebody else made (" + at(value) + ")";
  }

  // Whoever is lent a local's object must neither keep nor free it.
  std::string staysOwned(Place call, Place argument) const {
    if (p_.node(call).kind == Kind::Variable || p_.node(call).kind == Kind::FieldInit) return "it goes on to somebody else (" + at(argument) + ")";
    if (p_.node(argument).role != Role::Argument) return "it is used in a way that an owner is not (" + at(argument) + ")";
    VariableIndex parameter = parameterGiven(p_, call, argument.node);
    if (parameter == kNone) return "it is lent to what is not in this tree, which may keep or free it (" + at(argument) + ")";
    for (uint32_t u : p_.usesOfVariable[parameter]) {
      Place place = p_.uses[u].place, up = p_.parent(place);
      bool kept = p_.node(up).kind == Kind::Destroy || p_.node(up).kind == Kind::FieldInit || p_.node(up).kind == Kind::Return || (p_.node(up).kind == Kind::Assign && p_.node(place).role == Role::Value) || p_.node(place).role == Role::Argument || p_.node(up).kind == Kind::Variable;
      if (kept) return functionText(p_, p_.variables[parameter].function) + " may keep or free it (" + at(place) + ")";
    }
    return "";
  }

  std::string writeField(VariableIndex v, TypeIndex type) {
    const Variable& variable = p_.variables[v];
    if (variable.declarations.size() != 1 || p_.node(home(v)).has(kInMacro)) return "its declaration could not be read";
    for (uint32_t u : p_.usesOfVariable[v])
      if (const Use& use = p_.uses[u]; use.in == kNone || p_.functions[use.in].owner != type)
        if (p_.node(p_.parent(use.place)).kind == Kind::Destroy || use.access == Access::Write) return "others than its class set or free it (" + at(use.place) + ")";
    if (NodeId initial = p_.file(home(v)).child(home(v).node, Role::Initialiser); initial != kNoNode)
      if (std::string reason = take({home(v).file, initial}); !reason.empty()) return reason;
    if (std::string reason = retype(home(v)); !reason.empty()) return reason;
    include(home(v).file);
    return rewriteUses(v, true);
  }

  std::string writeResult(FunctionIndex f, Place& where) {
    const Function& fn = p_.functions[f];
    for (Place declaration : fn.declarations) {
      if (std::string reason = retype(declaration); !reason.empty()) return "what it hands out: " + reason;
      include(declaration.file);
    }
    for (Place value : a_.subject().origins.returnsOf(f))
      if (isNew(value) || isNothing(value))
        if (std::string reason = take(value); !reason.empty()) return reason;
    if (returned_ != kNone) {
      Place initial = initialiserOf(p_, returned_);
      if (std::string reason = retype(home(returned_)); !reason.empty()) return "its local: " + reason;
      if (std::string reason = take(initial); !reason.empty()) return reason;
      if (std::string reason = rewriteUses(returned_, false); !reason.empty()) {
        where = home(returned_);
        return reason;
      }
    }
    for (uint32_t c : p_.callsOfFunction[f]) {
      const CallSite& call = p_.calls[c];
      where = call.place;
      Place up = p_.parent(call.place);
      const Node& parent = p_.node(up);
      Role role = p_.node(call.place).role;
      if (parent.kind == Kind::ExpressionStatement || (parent.kind == Kind::Member && role == Role::Receiver) || parent.kind == Kind::Dereference) continue;
      if (parent.kind == Kind::Variable && role == Role::Initialiser) {
        Symbol symbol = p_.symbolAt(up);
        if (!symbol.is(Symbol::Sort::Variable) || p_.variables[symbol.index()].storage != Storage::Local) return "what it hands out is kept in a variable that is no local (" + at(call.place) + ")";
        if (std::string reason = retype(up); !reason.empty()) return reason + " (" + at(up) + ")";
        include(call.place.file);
        if (std::string reason = rewriteUses(symbol.index(), false); !reason.empty()) return reason;
        continue;
      }
      if (parent.kind == Kind::Assign && role == Role::Value) {
        Place target{up.file, p_.file(up).child(up.node, Role::Target)};
        Symbol symbol = p_.symbolAt(target);
        if (symbol.is(Symbol::Sort::Variable) && p_.typeText(p_.variables[symbol.index()].type).find("unique_ptr") != std::string::npos) continue;
        return "what it hands out goes to a bare pointer that is no local: let its class own that first (" + at(call.place) + ")";
      }
      return "what it hands out goes on, by a bare pointer (" + at(call.place) + ")";
    }
    where = fn.definition;
    return "";
  }

  const Analysis& a_;
  const Program& p_;
  PlanMemory& memory_;
  const Owning* h_ = nullptr;
  mutable SourceScan scan_;
  VariableIndex returned_ = kNone;  // the local that a function hands out
  std::vector<FileEdit> edits_;
};

Owner ownerFor(const Analysis& a, FileIndex home, PlanMemory& memory) { return Owner(a, home, memory); }

}  // namespace

std::string ownFieldsRefusal(const Analysis& a, size_t type) {
  PlanMemory memory;
  return ownerFor(a, a.program.types[type].definition.file, memory).ownedFields(static_cast<TypeIndex>(type)).empty() ? "its destructor deletes nothing that a field points to" : "";
}

NextStep nextOwnFieldsStep(const Analysis& a, size_t type, PlanMemory& memory) { return ownerFor(a, a.program.types[type].definition.file, memory).nextField(static_cast<TypeIndex>(type)); }

std::string ownResultRefusal(const Analysis& a, size_t function) {
  PlanMemory memory;
  return ownerFor(a, a.program.functions[function].declarations.front().file, memory).handsOutNew(static_cast<FunctionIndex>(function));
}

NextStep nextOwnResultStep(const Analysis& a, size_t function, PlanMemory& memory) { return ownerFor(a, a.program.functions[function].declarations.front().file, memory).nextResult(static_cast<FunctionIndex>(function)); }

}  // namespace elmcart
