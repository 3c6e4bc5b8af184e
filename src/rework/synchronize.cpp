#include "rework/synchronize.h"

#include <algorithm>
#include <map>
#include <set>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/writing.h"

namespace elmcart {
namespace {

class Synchronizer {
 public:
  Synchronizer(const Analysis& a, size_t entity, PlanMemory& memory)
      : p_(a.program), e_(a.survey.entities[entity]), memory_(memory),
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), s_(a.subject()), m_(p_.language(e_.place.file).mending) {}

  std::string refusal() {
    if (e_.slot != kNone && (p_.variables[e_.slot].modifiers & kThreadLocal)) return "each thread has its own";
    collect();
    return fields_.empty() ? "all of its state that changes is guarded already, or safe to share as it is" : "";
  }

  NextStep run() {
    NextStep out;
    collect();
    if (fields_.empty()) {
      out.finished = true;
      return out;
    }
    Step step;
    step.kind = StepKind::Synchronize;
    step.subject = std::string(e_.id);
    const Variable& any = p_.variables[fields_.front()];
    leaveOutsiders(out, any.owner, any.storage == Storage::Global, any.declarations.front().file);
    if (functions_.empty()) {
      out.finished = out.byHand.empty();
      return out;
    }
    std::string reason = write(step);
    if (!reason.empty()) {
      out.byHand.push_back({p_.path(where_.known() ? where_ : e_.place), p_.line(where_.known() ? where_ : e_.place), reason, true});
      return out;
    }
    if (memory_.refused.count(step.key())) return out;
    if (memory_.made.count(step.key())) {
      out.byHand.push_back({p_.path(e_.place), p_.line(e_.place), "some of it is still touched without the lock that a step put there", true});
      return out;
    }
    step.edits = std::move(edits_);
    step.units = functions_.size();
    out.found = true;
    out.step = std::move(step);
    return out;
  }

 private:
  struct Body {
    FunctionIndex function = kNone;
    std::string itself;  // what the object is called there
  };

  const Subject& s() const { return s_; }

  // The state that changes and is touched without a lock, and by whom.
  void collect() {
    fields_.clear();
    functions_.clear();
    existing_ = {};
    std::set<FunctionIndex> seen;
    LockSet common;
    bool first = true;
    for (const StateField& field : e_.state) {
      GuardedUses uses = guardedUses(s(), e_, field);
      if (!uses.anyChange || uses.unguarded.empty() || field.lock.known()) continue;
      if (variableTraits(p_, field.variable) & kSafeToShare) continue;
      fields_.push_back(field.variable);
      for (const Use* use : uses.guarded) {
        LockSet held = s().locks.at(use->place, use->in);
        common = first ? held : inBoth(common, held);
        first = false;
        guardedIn_.insert(use->in);
      }
      for (const Use* use : uses.unguarded)
        if (use->in != kNone && seen.insert(use->in).second) functions_.push_back({use->in, ""});
      for (const Use* use : uses.unguarded)
        if (use->in == kNone) where_ = use->place;
    }
    if (!common.empty()) existing_ = common.front();
    guardedSome_ = !first;
  }

  // A private helper that only guarded functions call is under their lock.
  bool isOnlyCalledBy(FunctionIndex f, const std::set<FunctionIndex>& guarded) const {
    const Function& fn = p_.functions[f];
    auto calls = p_.callsOfFunction[f];
    if (!(fn.modifiers & kPrivate) || std::none_of(calls.begin(), calls.end(), [&](uint32_t c) { return guarded.count(p_.calls[c].in); })) return false;
    // Nobody shares the object yet while its own class constructs it.
    return std::all_of(calls.begin(), calls.end(), [&](uint32_t c) {
      FunctionIndex in = p_.calls[c].in;
      return in != f && in != kNone && (guarded.count(in) || (isConstruction(p_, in) && fn.owner != kNone && p_.functions[in].owner == fn.owner));
    });
  }

  bool reaches(FunctionIndex from, const std::set<FunctionIndex>& targets, std::set<FunctionIndex>& seen) const {
    for (uint32_t c : p_.callsInFunction[from]) {
      FunctionIndex callee = p_.calls[c].callee;
      if (targets.count(callee)) return true;
      if (seen.insert(callee).second && seen.size() < 2000 && reaches(callee, targets, seen)) return true;
    }
    return false;
  }

  // Who looks at the state from outside of what can take the lock: left as it is, and told.
  void leaveOutsiders(NextStep& out, TypeIndex owner, bool ofFile, FileIndex home) {
    std::erase_if(functions_, [&](const Body& body) {
      const Function& fn = p_.functions[body.function];
      if (!fn.definition.known() || (ofFile ? fn.definition.file == home : fn.owner == owner)) return false;
      Place at;
      for (VariableIndex v : fields_)
        for (uint32_t u : p_.usesOfVariable[v]) {
          const Use& use = p_.uses[u];
          if (use.in != body.function) continue;
          if (use.access != Access::Read) return false;
          at = use.place;
        }
      out.byHand.push_back({p_.path(at), p_.line(at), functionText(p_, body.function) + " reads it from outside: give it a member to call", false});
      return true;
    });
  }

  std::string write(Step& step) {
    if (where_.known()) return "it is touched outside of functions too";
    if (guardedSome_ && !existing_.known()) return "several locks guard it, no one of them everywhere: choose one by hand";
    // Whose lock: the object's, the class's or the file's.
    const Variable& any = p_.variables[fields_.front()];
    Storage storage = any.storage;
    TypeIndex owner = any.owner;
    for (VariableIndex v : fields_)
      if (p_.variables[v].storage != storage || p_.variables[v].owner != owner) return "its state is kept in several ways: objects, classes, files";
    bool ofFile = storage == Storage::Global, ofClass = storage == Storage::StaticField;
    if (storage == Storage::FunctionStatic) return "its state is kept inside of a function";
    bool object = owner != kNone && p_.types[owner].form == TypeForm::Object;
    FileIndex home = p_.variables[fields_.front()].declarations.front().file;
    std::set<FunctionIndex> guarded = guardedIn_;
    for (Body& body : functions_) guarded.insert(body.function);
    // Helpers under the lock of those who call them need none of their own.
    std::erase_if(functions_, [&](const Body& body) {
      std::set<FunctionIndex> others = guarded;
      others.erase(body.function);
      bool helper = isOnlyCalledBy(body.function, others);
      if (helper) guarded.erase(body.function);
      return helper;
    });
    if (functions_.empty()) return "who touches it without the lock is only called by who holds it";
    // A variable of the file may get its first value in a function.
    Place first = p_.variables[fields_.front()].declarations.front();
    bool within = std::any_of(p_.functions.begin(), p_.functions.end(), [&](const Function& fn) {
      return fn.definition.known() && fn.definition.file == first.file && fn.form != FunctionForm::Initialiser && p_.node(fn.definition).span.contains(p_.node(first).span.begin);
    });
    if (ofFile && within) return "it is first set inside of a function";
    for (Body& body : functions_) {
      const Function& fn = p_.functions[body.function];
      where_ = fn.definition;
      if (!fn.definition.known() || (fn.modifiers & kInMacro)) return functionText(p_, body.function) + " could not be read";
      if (ofFile ? fn.definition.file != home : fn.owner != owner) return functionText(p_, body.function) + " touches " + std::string(p_.text(any.name)) + " from outside: give it a member to call";
      if (!ofFile && !ofClass && fn.isStaticMember()) return functionText(p_, body.function) + " belongs to the class, the state to an object";
      if (guardedIn_.count(body.function) && !m_->takenTwice) return functionText(p_, body.function) + " takes the lock in its middle: take it for all of it by hand";
      if (fn.modifiers & kSuspending) return functionText(p_, body.function) + " may wait in its middle, and a lock must not be held then";
      const LoweredFile& file = p_.file(fn.definition);
      if (body.itself.empty()) body.itself = wordForObject(p_, scan_, fn.definition);
      if (anyNode(file, fn.definition.node, [&](NodeId n) { return file[n].kind == Kind::Await; })) return functionText(p_, body.function) + " waits in its middle, and a lock must not be held then";
    }
    where_ = {};
    bool nested = std::any_of(functions_.begin(), functions_.end(), [&](const Body& body) {
      std::set<FunctionIndex> seen;
      return reaches(body.function, guarded, seen);
    });
    if (nested && !m_->takenTwice && (m_->nestedLock.empty() || existing_.known() || ofFile || ofClass)) return "its members call each other, and the lock can be taken once only: split what they share into helpers by hand";

    lockType_ = existing_.sort == LockId::Sort::Variable ? p_.typeText(p_.variables[existing_.index].type) : nested ? "std::recursive_mutex" : "std::mutex";
    // The lock: one that is there, or a new one.
    std::string lock, name(m_->lockName);
    bool byWord = !m_->guardWord.empty() && !ofFile;
    if (existing_.known()) {
      // An object or a class that serves as its own lock bears no name of the text.
      bool itself = existing_.sort != LockId::Sort::Variable || p_.text(p_.variables[existing_.index].name).find(' ') != std::string_view::npos;
      if (!itself) {
        byWord = false;
        name = std::string(p_.text(p_.variables[existing_.index].name));
        if (ofClass && p_.variables[existing_.index].storage == Storage::Field) return "the lock belongs to an object, the state to the class";
      } else if (existing_.sort == LockId::Sort::Foreign || !byWord) {
        if (m_->guardWrap.find("{this}") == std::string_view::npos) return "it is guarded by " + lockText(p_, existing_) + " in places, which cannot be written here";
      }
    }
    if (byWord)
      for (const Body& body : functions_)
        if (p_.functions[body.function].isStaticMember() != (ofClass || object)) return functionText(p_, body.function) + " and the state belong to different things, the class and its objects";
    bool ofThis = m_->guardWrap.find("{this}") != std::string_view::npos;
    if (ofThis && (ofFile || ofClass)) return "it is kept by a file, and no object is there to lock";
    if (!byWord && !existing_.known() && !ofThis)
      if (std::string reason = addLock(name, owner, ofFile, ofClass, nested); !reason.empty()) return reason;
    for (const Body& body : functions_) {
      where_ = p_.functions[body.function].definition;
      if (std::string reason = byWord ? putWord(body) : putGuard(body, name, owner, ofFile, ofClass); !reason.empty()) return reason;
    }
    where_ = {};
    if (!m_->guardImport.empty() && !byWord) {
      std::set<FileIndex> files;
      if (!existing_.known()) files.insert(lockFile_);
      for (const Body& body : functions_)
        if (p_.language(home).owning) files.insert(p_.functions[body.function].definition.file);
      for (FileIndex f : files) {
        if (p_.language(f).owning) {
          if (scan_.text(f).find(m_->guardImport) == std::string_view::npos && f == lockFile_) scan_.addInclude(f, std::string(m_->guardImport), edits_);
        } else {
          importLine(p_, scan_, f, std::string(m_->guardImport), edits_);
        }
      }
    }
    std::vector<std::string> names;
    for (VariableIndex v : fields_) names.emplace_back(p_.text(p_.variables[v].name));
    std::string by = byWord || ofThis ? (object || ofClass ? "the lock of its class" : "its object's own lock") : name;
    step.title = joinWith(names, ", ") + (names.size() == 1 && names.front() == e_.name ? std::string() : " of " + e_.name) + " " + (names.size() == 1 ? "is" : "are") + " only touched under " + by + ", in " + counted(functions_.size(), "function", "functions") + (existing_.known() ? " more" : "");
    return "";
  }

  // A name that nothing bears yet.
  std::string freeName(const std::string& wanted, TypeIndex owner, FileIndex home) {
    auto taken = [&](const std::string& name) {
      if (owner != kNone) {
        for (VariableIndex v : p_.types[owner].fields) if (p_.text(p_.variables[v].name) == name) return true;
        for (VariableIndex v : p_.types[owner].statics) if (p_.text(p_.variables[v].name) == name) return true;
      }
      for (const Variable& v : p_.variables)
        if (v.storage == Storage::Global && p_.text(v.name) == name && v.declarations.front().file == home) return true;
      return false;
    };
    std::string name = wanted;
    if (taken(name)) {
      // _lock: _state_lock; mutex_: stateMutex_
      bool under = name[0] == '_';
      std::string core = under ? name.substr(1) : name;
      if (!under) core[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(core[0])));
      name = (under ? "_state_" : "state") + core;
    }
    std::string base = name;
    for (int i = 2; taken(name) && i < 100; ++i) name = base.back() == '_' ? base.substr(0, base.size() - 1) + std::to_string(i) + "_" : base + std::to_string(i);
    return name;
  }

  std::string addLock(std::string& name, TypeIndex owner, bool ofFile, bool ofClass, bool nested) {
    Place beside = p_.variables[fields_.front()].declarations.front();
    if (owner != kNone)
      for (Place place : p_.variables[fields_.front()].declarations)
        if (place.file == p_.types[owner].definition.file && p_.isInside(place, p_.types[owner].definition.node)) beside = place;
    lockFile_ = beside.file;
    if (ofFile) {
      // After what it guards, in the manner of its name.
      std::string slot(p_.text(p_.variables[fields_.front()].name)), word = p_.language(beside.file).owning ? "mutex" : "lock";
      bool camel = std::any_of(slot.begin(), slot.end(), [](char c) { return c >= 'A' && c <= 'Z'; }) || (name[0] != '_' && !p_.language(beside.file).owning);
      if (camel) word[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(word[0])));
      name = slot + (camel ? "" : "_") + word;
    }
    name = freeName(name, owner, beside.file);
    std::string_view pattern = ofFile ? m_->fileLock : ofClass ? m_->classLock : nested && !m_->nestedLock.empty() ? m_->nestedLock : m_->objectLock;
    if (!ofFile && !ofClass && !m_->lockInConstructor.empty()) {
      // Before the state that it guards.
      for (FunctionIndex m : p_.types[owner].methods) {
        const Function& fn = p_.functions[m];
        if (fn.form != FunctionForm::Constructor || !fn.definition.known()) continue;
        NodeId body = p_.file(fn.definition).child(fn.definition.node, Role::Body);
        if (body != kNoNode) return insertFirst(p_, scan_, {fn.definition.file, body}, filled(m_->lockInConstructor, {{"lock", name}}), edits_);
      }
      return "its class has no constructor in which the lock could be made";
    }
    if (pattern.empty()) return "a lock for what is kept that way cannot be written here yet";
    std::string line = filled(pattern, {{"lock", name}});
    uint32_t at = scan_.lineBegin(beside.file, p_.node(beside).span.begin);
    if (!trim(scan_.text(beside.file).substr(at, p_.node(beside).span.begin - at)).empty() && scan_.indentOf(beside).size() + at != p_.node(beside).span.begin) {
      std::string_view before = trim(scan_.text(beside.file).substr(at, p_.node(beside).span.begin - at));
      if (before.find_first_of(";{}") != std::string_view::npos) return "the declaration of " + std::string(p_.nameOf(beside)) + " shares its line with others";
    }
    at = scan_.withLinesAbove(beside.file, at, {"//", "#", "/*", "*", "@"});
    // A line break at the pattern's end keeps it apart from what it guards.
    std::string newline = scan_.newlineOf(beside.file), apart = line.back() == '\n' ? newline : "";
    edits_.push_back({p_.path(beside), {at, at}, scan_.indentOf(beside) + std::string(trim(line)) + newline + apart});
    return "";
  }

  std::string putWord(const Body& body) {
    const Function& fn = p_.functions[body.function];
    std::string_view source = scan_.text(fn.definition.file);
    const Node& node = p_.node(fn.definition);
    std::string word(m_->guardWord);
    uint32_t at = node.span.begin;
    if (m_->guardWordBeforeType) {
      // Behind the last of the words that stand in front of the type.
      std::string_view head = source.substr(node.span.begin, node.nameBegin - node.span.begin);
      for (std::string_view modifier : {"public ", "protected ", "private ", "static ", "final ", "abstract ", "default "}) {
        size_t found = head.rfind(modifier);
        if (found != std::string_view::npos && (found == 0 || !isWordByte(head[found - 1]))) at = std::max(at, node.span.begin + static_cast<uint32_t>(found + modifier.size()));
      }
      // Marks in front of it stay where they are.
      while (at < node.nameBegin && source[at] == '@') {
        while (at < node.nameBegin && source[at] != '\n' && source[at] != ' ') ++at;
        while (at < node.nameBegin && (source[at] == '\n' || source[at] == ' ' || source[at] == '\t' || source[at] == '\r')) ++at;
      }
    }
    // A mark stands on a line of its own.
    if (word.back() == '\n') word = word.substr(0, word.size() - 1) + scan_.newlineOf(fn.definition.file) + scan_.indentOf(fn.definition);
    edits_.push_back({p_.path(fn.definition), {at, at}, word});
    return "";
  }

  std::string putGuard(const Body& body, const std::string& name, TypeIndex owner, bool ofFile, bool ofClass) {
    const Function& fn = p_.functions[body.function];
    FileIndex f = fn.definition.file;
    std::string_view source = scan_.text(f);
    NodeId inner = p_.file(fn.definition).child(fn.definition.node, Role::Body);
    if (inner == kNoNode) return functionText(p_, body.function) + " has no body that could be read";
    Place block{f, inner};
    bool braces = source[p_.node(block).span.begin] == '{';
    bool indented = !braces && m_->guardWrapEnd.empty() && !m_->guardWrap.empty();
    // fun loads() = loads: the lock hands out what is worked out under it.
    size_t equals = source[p_.node(block).span.begin] == '=' ? p_.node(block).span.begin : source.find_last_not_of(" \t\r\n", p_.node(block).span.begin - 1);
    bool expression = !braces && !indented && m_->guardWrapEnd == "}" && m_->guardWrap.find('\n') == std::string_view::npos && equals != std::string_view::npos && source[equals] == '=';
    if (!braces && !indented && !expression) {
      // Some grammars leave the bracket out of the body.
      if (m_->guardLines.empty() || std::string_view(scan_.nodeText(fn.definition)).find('{') == std::string_view::npos) return functionText(p_, body.function) + " is one expression: give it a body first";
    }
    std::string itself = body.itself.empty() ? "this" : body.itself;
    bool existingIsOfClass = existing_.sort == LockId::Sort::Variable && p_.variables[existing_.index].storage == Storage::StaticField;
    std::string_view how = ofFile ? std::string_view("{lock}") : ofClass || existingIsOfClass ? m_->lockOfClass : m_->lockOfObject;
    bool needsThis = how.find("{this}") != std::string_view::npos || m_->guardWrap.find("{this}") != std::string_view::npos;
    if (needsThis && body.itself.empty()) {
      itself = objectNamedInFront(p_, scan_, fn.definition);
      if (itself.empty()) itself = "self";
    }
    if (needsThis && !p_.language(f).bareMembers && p_.functions[body.function].owner != kNone && scan_.nodeText(fn.definition).find("*") == std::string::npos && m_->guardWrap.empty()) return functionText(p_, body.function) + " works on a copy of the object";
    std::string className = owner == kNone ? "" : std::string(p_.text(p_.types[owner].name));
    std::vector<std::pair<std::string_view, std::string>> words = {{"this", itself}, {"class", className}, {"lock", name}};
    std::string lock = filled(how, words);
    words = {{"this", itself}, {"lock", lock}, {"locktype", lockType_}};
    if (!m_->guardLines.empty()) return insertFirst(p_, scan_, block, filled(m_->guardLines, words), edits_);
    std::string text = scan_.nodeText(block);
    if (text.find('\n') == std::string::npos && braces) {
      std::string head = filled(m_->guardWrap, words);
      std::replace(head.begin(), head.end(), '\n', ' ');
      uint32_t open = p_.node(block).span.begin + 1, close = p_.node(block).span.end - 1;
      edits_.push_back({p_.path(block), {open, open}, " " + head});
      edits_.push_back({p_.path(block), {close, close}, std::string(m_->guardWrapEnd) + " "});
      return "";
    }
    if (expression) {
      uint32_t begin = static_cast<uint32_t>(source.find_first_not_of(" \t\r\n", equals + 1));
      edits_.push_back({p_.path(block), {begin, begin}, filled(m_->guardWrap, words) + " "});
      edits_.push_back({p_.path(block), {p_.node(block).span.end, p_.node(block).span.end}, " }"});
      return "";
    }
    if (indented) text = std::string(source.substr(bodyLinesBegin(p_, scan_, block), p_.node(block).span.end - std::min(p_.node(block).span.end, bodyLinesBegin(p_, scan_, block))));
    if (indented && (text.find("\"\"\"") != std::string::npos || text.find("'''") != std::string::npos)) return functionText(p_, body.function) + " holds a text of several lines, which must not be moved";
    std::string outer = scan_.indentOf(fn.definition), first, unit = "    ";
    for (NodeId c : children(p_.file(block), inner)) {
      first = scan_.indentOf({f, c});
      break;
    }
    if (first.size() > outer.size()) unit = first.substr(outer.size());
    uint32_t from = bodyLinesBegin(p_, scan_, block), to = p_.node(block).span.end;
    if (braces) to = scan_.lineBegin(f, to - 1);
    else to = static_cast<uint32_t>(std::min(source.find('\n', to - 1) + 1, source.size()));
    if (from >= to) return functionText(p_, body.function) + " stands on one line";
    wrapLines(scan_, f, {from, to}, outer + unit, unit, filled(m_->guardWrap, words), m_->guardWrapEnd, edits_);
    return "";
  }

  const Program& p_;
  const Entity& e_;
  PlanMemory& memory_;
  SourceScan scan_;
  const Subject& s_;
  const Mending* m_ = nullptr;
  std::vector<VariableIndex> fields_;
  std::vector<Body> functions_;
  std::set<FunctionIndex> guardedIn_;  // that take a lock around some of it already
  LockId existing_;
  bool guardedSome_ = false;
  std::string lockType_;
  FileIndex lockFile_ = kNone;
  Place where_;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string synchronizeRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return Synchronizer(analysis, entity, memory).refusal();
}

NextStep nextSynchronizeStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return Synchronizer(analysis, entity, memory).run(); }

}  // namespace elmcart
