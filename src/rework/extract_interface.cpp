#include "rework/extract_interface.h"

#include <algorithm>
#include <map>
#include <memory>
#include <optional>
#include <set>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/parameter.h"
#include "rework/signature.h"
#include "rework/writing.h"
#include "source/ignore.h"
#include "survey/survey.h"

namespace elmcart {
namespace {

// Members that each object has, whatever it is named by.
bool isEverybodys(std::string_view member) {
  constexpr std::string_view kNames[] = {"equals", "hashCode", "toString", "Equals", "GetHashCode", "ToString", "isEqual", "hash", "description"};
  return std::find(std::begin(kNames), std::end(kNames), member) != std::end(kNames);
}

class InterfaceExtractor {
 public:
  InterfaceExtractor(const Analysis& a, TypeIndex type, PlanMemory& memory)
      : p_(a.program), config_(a.config), type_(type), memory_(memory),
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), language_(a.program.language(a.program.types[type].definition.file)), f_(language_.facing) {
    class_ = plainName(p_, type_);
    face_ = filled(f_ ? f_->name : "", {{"class", class_}});
    there_ = typeBeside(p_, type_, face_);
  }

  std::string refusal() {
    const TypeDecl& decl = p_.types[type_];
    if (decl.form != TypeForm::Class && decl.form != TypeForm::Struct) return "it is no class that others hold an object of";
    if (!decl.typeParameters.empty()) return "it has type parameters";
    if (p_.scopes[decl.parent].sort == Scope::Sort::Type) return "it is declared inside another class";
    if (p_.node(decl.definition).has(kInMacro)) return "it is written by a macro";
    if (std::any_of(decl.methods.begin(), decl.methods.end(), [&](FunctionIndex m) { return p_.functions[m].modifiers & kAbstract; })) return "it is abstract already: depend on it, and let a double derive from it";
    if (there_ != kNone && p_.types[there_].form != TypeForm::Interface && !keeps(there_)) return face_ + " means something else already";
    collect();
    if (wanted_.empty()) return there_ != kNone ? "all that can name " + face_ + " do" : "no other class or function takes or keeps one by its name";
    return "";
  }

  NextStep run() {
    NextStep out;
    collect();
    settle();
    for (const auto& [v, reason] : refused_)
      if (wanted_.count(v)) byHand(out, p_.variables[v].declarations.front(), std::string(p_.text(p_.variables[v].name)) + " of " + unitName(v) + " stays with the class: " + reason);
    std::vector<std::vector<VariableIndex>> open = there_ == kNone ? std::vector<std::vector<VariableIndex>>(1) : units();
    NextStep made = firstOf(open.size(), memory_, [&](size_t i) {
      edits_.clear();
      edited_.clear();
      Place where = open[i].empty() ? p_.types[type_].definition : homeOf(open[i].front());
      Attempt one{{}, "", p_.path(where), p_.line(where)};
      one.step.kind = StepKind::ExtractInterface;
      one.step.subject = open[i].empty() ? face_ : unitName(open[i].front());
      one.step.title = one.step.subject + " depends on " + face_ + " instead of " + class_;
      one.reason = open[i].empty() ? writeFace(one.step) : writeUnit(open[i]);
      one.step.edits = std::move(edits_);
      return one;
    });
    for (ByHand& hand : made.byHand) hand.blocksRetire = false;
    made.byHand.insert(made.byHand.begin(), out.byHand.begin(), out.byHand.end());
    made.finished = !made.found && made.byHand.empty();
    return made;
  }

 private:
  void byHand(NextStep& out, Place place, std::string reason) { out.byHand.push_back({p_.path(place), p_.line(place), std::move(reason), false}); }

  bool keeps(TypeIndex face) const { return p_.derivesFrom(type_, face) || f_->clause.empty(); }

  // ----- who names the class

  Place homeOf(VariableIndex v) const { return p_.variables[v].declarations.front(); }
  FunctionIndex functionOf(VariableIndex v) const { return p_.variables[v].function; }
  TypeIndex ownerOf(VariableIndex v) const {
    const Variable& variable = p_.variables[v];
    if (variable.owner != kNone) return variable.owner;
    return variable.function == kNone ? kNone : p_.functions[variable.function].owner;
  }
  std::string unitName(VariableIndex v) const {
    if (TypeIndex owner = ownerOf(v); owner != kNone) return std::string(p_.text(p_.types[owner].qualified));
    return functionOf(v) != kNone ? functionText(p_, functionOf(v)) : p_.path(homeOf(v));
  }
  NodeId writtenType(VariableIndex v) const { return p_.file(homeOf(v)).child(homeOf(v).node, Role::Type); }

  // Fields and parameters outside the class, tests aside, that are declared to be one.
  void collect() {
    if (collected_) return;
    collected_ = true;
    for (VariableIndex v = 0; v < p_.variables.size(); ++v) {
      const Variable& variable = p_.variables[v];
      if (variable.declarations.empty() || p_.use(variable.type).decl != type_ || &p_.language(homeOf(v).file) != &language_) continue;
      bool kept = variable.storage == Storage::Field || variable.storage == Storage::Parameter;
      if (ownerOf(v) == type_ || (there_ != kNone && ownerOf(v) == there_) || config_.tests.match(p_.path(homeOf(v)))) continue;
      if (!kept && variable.storage != Storage::Local) continue;
      held_.insert(v);
      if (kept && writtenType(v) != kNoNode) wanted_.insert(v);
    }
  }

  // A parameter of a function that stands for one of a base or an interface, or that others stand for.
  bool isBound(FunctionIndex f) const {
    const Function& fn = p_.functions[f];
    if (fn.owner == kNone || fn.form != FunctionForm::Function || fn.isStaticMember()) return false;
    if (fn.modifiers & (kOverride | kAbstract | kVirtual)) return true;
    auto has = [&](TypeIndex t) { return std::any_of(p_.types[t].methods.begin(), p_.types[t].methods.end(), [&](FunctionIndex m) { return p_.functions[m].name == fn.name; }); };
    std::vector<TypeIndex> open = p_.types[fn.owner].derived;
    for (const Base& base : p_.types[fn.owner].bases) {
      // What all objects have is nobody's own to name.
      if (base.type == kNone && p_.guarantees(fn.home().file).isRoot(lastPart(p_.text(p_.use(base.use).name)))) continue;
      if (base.type == kNone) return true;
      open.push_back(base.type);
    }
    return std::any_of(open.begin(), open.end(), has);
  }

  std::string unfit(VariableIndex v) const {
    const Variable& variable = p_.variables[v];
    const TypeUse& use = p_.use(variable.type);
    if (p_.node(homeOf(v)).has(kInMacro)) return "it is written by a macro";
    if (use.has(kArray)) return "it is a list of them";
    if (language_.owning && !use.has(kPointer | kReference)) return "it holds one by value";
    if (variable.storage == Storage::Parameter && functionOf(v) != kNone) {
      const Function& fn = p_.functions[functionOf(v)];
      if (isBound(functionOf(v))) return functionText(p_, functionOf(v)) + " stands for others of its name";
      if (fn.typeParameters.size() > 0) return functionText(p_, functionOf(v)) + " has type parameters";
      for (FunctionIndex other = 0; other < p_.functions.size(); ++other) {
        const Function& o = p_.functions[other];
        if (other != functionOf(v) && o.name == fn.name && o.owner == fn.owner && o.parent == fn.parent && o.parameters.size() == fn.parameters.size()) return "there are several functions " + std::string(p_.text(fn.name)) + " with as many parameters";
      }
    }
    if (writtenType(v) != kNoNode && !spanOfType(v)) return "its type could not be read";
    return "";
  }

  // ----- what is done with what a variable holds

  struct Way {
    std::string reason;           // not empty: the interface would not do
    FunctionIndex member = kNone;
    VariableIndex into = kNone;   // it goes on to there
  };

  Way wayOf(const Use& use) const {
    Place at = use.place;
    const LoweredFile& file = p_.file(at);
    if (file[at.node].kind == Kind::FieldInit) return {};  // it is given one
    for (int i = 0; i < 8; ++i) {
      Place up = p_.parent(at);
      if (up.node == kNoNode) return {};
      const Node& parent = p_.node(up);
      Role role = file[at.node].role;
      auto into = [&](Symbol symbol) {
        if (!symbol.is(Symbol::Sort::Variable)) return Way{"it is handed to what could not be read", kNone, kNone};
        return Way{"", kNone, symbol.index()};
      };
      switch (parent.kind) {
        case Kind::Member: {
          if (role != Role::Receiver) return {};
          Symbol symbol = p_.symbolAt(up);
          std::string name(file.name(up.node));
          if (symbol.is(Symbol::Sort::Function)) {
            const Function& fn = p_.functions[symbol.index()];
            if (fn.isStaticMember() || (fn.form != FunctionForm::Function && fn.form != FunctionForm::Getter)) return {name + " is no member of an object", kNone, kNone};
            return {"", symbol.index(), kNone};
          }
          if (isEverybodys(name)) return {};
          return {symbol.is(Symbol::Sort::Variable) ? "its field " + name + " is used" : name + " is not known to be a member of it", kNone, kNone};
        }
        case Kind::Call: case Kind::Create: case Kind::FieldInit: {
          if (role == Role::Callee) return {};
          if (parent.kind == Kind::Create && role == Role::Value) return into(fieldGiven(up, at));
          if (NodeId callee = file.child(up.node, Role::Callee); callee != kNoNode && file.name(callee) == "nameof") return {};
          if (parent.kind == Kind::FieldInit && p_.symbolAt(up).is(Symbol::Sort::Variable)) return into(p_.symbolAt(up));
          return intoParameter(up, at);
        }
        case Kind::Assign: return role == Role::Value ? into(p_.symbolAt({up.file, file.child(up.node, Role::Target)})) : Way{};
        case Kind::Variable: return role == Role::Initialiser ? into(p_.symbolAt(up)) : Way{};
        case Kind::NullTest: return f_->nullIsAnother ? Way{"whether there is one is asked, and an interface that holds none is something", kNone, kNone} : Way{};
        case Kind::Compare: case Kind::Guard: case Kind::ExpressionStatement: case Kind::Capture: return {};
        case Kind::Return: return {"it is handed out as its class", kNone, kNone};
        case Kind::Dereference: case Kind::AddressOf: at = up; continue;
        case Kind::Conditional:
          if (role == Role::Condition) return {};
          if (language_.owning) return {"one of it or of another is chosen (line " + std::to_string(p_.line(at)) + ")", kNone, kNone};
          at = up;
          continue;
        default: return {"it is used in a way that needs the class (line " + std::to_string(p_.line(at)) + ")", kNone, kNone};
      }
    }
    return {"it is used in a way that needs the class (line " + std::to_string(p_.line(at)) + ")", kNone, kNone};
  }

  // Desk{tides: tides}: the field by its name, or else by its place among the others.
  Symbol fieldGiven(Place creation, Place value) const {
    const Creation* found = creationAt(p_, creation);
    TypeIndex made = found ? found->type : kNone;
    if (made == kNone) return {};
    std::string_view source = scan_.text(value.file);
    size_t end = p_.node(value).span.begin;
    while (end > 0 && isBlank(source[end - 1])) --end;
    if (end > 0 && source[end - 1] == ':') {
      size_t begin = --end;
      while (begin > 0 && isWordByte(source[begin - 1])) --begin;
      for (VariableIndex v : p_.types[made].fields)
        if (p_.text(p_.variables[v].name) == source.substr(begin, end - begin)) return Symbol(Symbol::Sort::Variable, v);
      return {};
    }
    size_t position = 0;
    for (NodeId c : children(p_.file(creation), creation.node)) {
      if (p_.file(creation)[c].role != Role::Value) continue;
      if (c == value.node) break;
      ++position;
    }
    return position < p_.types[made].fields.size() ? Symbol(Symbol::Sort::Variable, p_.types[made].fields[position]) : Symbol{};
  }

  Way intoParameter(Place call, Place argument) const {
    VariableIndex parameter = parameterGiven(p_, call, argument.node);
    if (parameter == kNone) return {"it is handed to what is not in this tree (line " + std::to_string(p_.line(call)) + ")", kNone, kNone};
    return {"", kNone, parameter};
  }

  bool isFace(VariableIndex v) const { return there_ != kNone && p_.use(p_.variables[v].type).decl == there_; }

  // What can name the interface: all that is wanted, but for what goes where the class is needed.
  void settle() {
    std::map<VariableIndex, std::vector<VariableIndex>> goesTo;
    for (VariableIndex v : held_) {
      std::string reason = unfit(v);
      for (uint32_t u : p_.usesOfVariable[v]) {
        if (!reason.empty()) break;
        Way way = wayOf(p_.uses[u]);
        reason = way.reason;
        if (reason.empty() && way.member != kNone) reason = unwritable(way.member);
        if (way.member != kNone) members_[v].insert(way.member);
        if (way.into != kNone && way.into != v && !isFace(way.into)) goesTo[v].push_back(way.into);
      }
      if (!reason.empty()) refused_[v] = reason;
    }
    for (bool changed = true; changed;) {
      changed = false;
      for (auto& [v, targets] : goesTo) {
        if (refused_.count(v)) continue;
        for (VariableIndex t : targets) {
          bool untyped = !held_.count(t) && writtenType(t) == kNoNode && p_.variables[t].type == 0;
          if (untyped || (held_.count(t) && !refused_.count(t))) continue;
          refused_[v] = "it goes on to " + std::string(p_.text(p_.variables[t].name)) + " of " + unitName(t) + ", which " + (held_.count(t) ? "stays with the class" : "is no " + class_);
          changed = true;
          break;
        }
      }
    }
    goesTo_ = std::move(goesTo);
  }

  // The variables to be changed, unit by unit: first those whose own go nowhere that is still to be changed.
  std::vector<std::vector<VariableIndex>> units() const {
    std::map<std::string, std::vector<VariableIndex>> byName;
    auto open = [&](VariableIndex v) { return wanted_.count(v) > 0 && !refused_.count(v); };
    for (VariableIndex v : held_)
      if (open(v)) byName[unitName(v)].push_back(v);
    std::vector<std::pair<std::string, std::vector<VariableIndex>>> list(byName.begin(), byName.end());
    std::sort(list.begin(), list.end(), [&](const auto& x, const auto& y) { return std::make_pair(p_.path(homeOf(x.second.front())), p_.line(homeOf(x.second.front()))) < std::make_pair(p_.path(homeOf(y.second.front())), p_.line(homeOf(y.second.front()))); });
    // What stays with the class but is given what would be an interface goes with its unit, so only other units hinder.
    auto waits = [&](const std::string& name, const std::vector<VariableIndex>& unit) {
      std::vector<VariableIndex> reached = unit;
      std::set<VariableIndex> seen(unit.begin(), unit.end());
      for (size_t i = 0; i < reached.size(); ++i)
        if (auto found = goesTo_.find(reached[i]); found != goesTo_.end())
          for (VariableIndex t : found->second) {
            if (open(t) && unitName(t) != name) return true;
            if (seen.insert(t).second) reached.push_back(t);
          }
      return false;
    };
    std::vector<std::vector<VariableIndex>> out;
    std::vector<VariableIndex> ring;
    for (auto& [name, unit] : list) {
      if (waits(name, unit)) ring.insert(ring.end(), unit.begin(), unit.end());
      else out.push_back(unit);
    }
    // They wait for one another: all at once.
    if (out.empty() && !ring.empty()) out.push_back(ring);
    return out;
  }

  // ----- writing the interface

  // Why the member cannot stand in the interface; "" it can.
  std::string unwritable(FunctionIndex m) const {
    const Function& fn = p_.functions[m];
    std::string name(p_.text(fn.name));
    if (fn.owner != type_) return name + " comes from a base class";
    if (fn.modifiers & (kPrivate | kProtected)) return name + " is not open to others";
    if (!fn.typeParameters.empty() && language_.owning) return name + " is a template";
    if (there_ != kNone) {
      bool in = std::any_of(p_.types[there_].methods.begin(), p_.types[there_].methods.end(), [&](FunctionIndex o) { return p_.functions[o].name == fn.name; });
      return in || !f_->untold.empty() ? "" : name + " is not in " + face_;
    }
    return signatures().signatureOf(m).reason;
  }
  Signatures& signatures() const {
    if (!signatures_) signatures_ = std::make_unique<Signatures>(p_, scan_, language_, type_);
    return *signatures_;
  }

  std::string writeFace(Step& step) {
    std::set<FunctionIndex> used;
    size_t holders = 0;
    for (VariableIndex v : held_)
      if (!refused_.count(v) && (wanted_.count(v) || !members_[v].empty())) {
        used.insert(members_[v].begin(), members_[v].end());
        holders += wanted_.count(v);
      }
    if (holders == 0) return "nothing that takes one could do with less than the class";
    if (used.empty()) return "nothing that takes one uses a member of it";
    Place definition = p_.types[type_].definition;
    std::string members, doubles, names;
    std::string indent = scan_.indentOf(definition), unit = unitIndent(p_, scan_, type_);
    for (FunctionIndex m : inTextOrder(p_, used)) {
      Signature one = signatures().signatureOf(m);
      std::vector<std::pair<std::string_view, std::string>> words = {{"signature", one.text}, {"member", std::string(p_.text(p_.functions[m].name))}, {"class", class_}};
      members += filled(one.whole ? f_->member : f_->untold, words);
      doubles += filled(f_->doubleMember, words);
      names += (names.empty() ? "" : ", ") + std::string(p_.text(p_.functions[m].name));
      if (std::string reason = openMember(m); !reason.empty()) return reason;
    }
    bool exported = signatures().isExported();
    std::vector<std::pair<std::string_view, std::string>> words = {{"face", face_}, {"class", class_}, {"visibility", signatures().visibility()}, {"members", members}};
    std::string newline = scan_.newlineOf(definition.file), text = laidOut(scan_, filled(f_->face, words), definition.file, indent, unit);
    if (f_->ownFile && exported) {
      std::string path = fileBeside(p_, definition, face_);
      if (std::any_of(p_.files.begin(), p_.files.end(), [&](const LoweredFile& file) { return file.path == path; })) return path + " is there already";
      edits_.push_back({path, {0, 0}, signatures().headLines(definition.file, members) + text + newline});
    } else {
      uint32_t at = scan_.withLinesAbove(definition.file, scan_.lineBegin(definition.file, p_.node(definition).span.begin), {"//", "/*", "*", "@", "#[", "[", "template"});
      edits_.push_back({p_.path(definition), {at, at}, indent + text + newline + newline + (f_->widelyApart ? newline : "")});
    }
    if (!f_->import.empty()) importLine(p_, scan_, definition.file, std::string(f_->import), edits_);
    if (std::string reason = addClause(); !reason.empty()) return reason;
    step.title = face_ + " has what others use of " + class_ + ": " + names;
    step.sample = filled(f_->double_, {{"face", face_}, {"class", class_}, {"members", doubles}});
    for (size_t at = step.sample.find('\t'); at != std::string::npos; at = step.sample.find('\t', at + 1))
      if (language_.id != "go") step.sample.replace(at, 1, unit);
    return "";
  }

  // What the class's own member needs so that it keeps the interface's.
  std::string openMember(FunctionIndex m) {
    const Function& fn = p_.functions[m];
    Place place = fn.definition.known() && fn.definition.file == p_.types[type_].definition.file ? fn.definition : fn.declarations.front();
    if (!f_->overriding.empty() && !(fn.modifiers & kOverride)) {
      std::string_view source = scan_.text(place.file);
      size_t word = source.find("fun ", p_.node(place).span.begin);
      if (word == std::string_view::npos || word > p_.node(place).nameBegin) return std::string(p_.text(fn.name)) + " could not be read";
      edits_.push_back({p_.path(place), {static_cast<uint32_t>(word), static_cast<uint32_t>(word)}, std::string(f_->overriding)});
    }
    if (f_->publicMembers && !(fn.modifiers & kPublic)) {
      uint32_t at = signatures().wordsBegin(m);
      edits_.push_back({p_.path(place), {at, at}, "public "});
    }
    return "";
  }

  std::string addClause() {
    if (f_->clause.empty()) return "";
    Place definition = p_.types[type_].definition;
    const Node& node = p_.node(definition);
    std::string_view source = scan_.text(definition.file);
    bool braces = f_->clauseWord != "<";
    uint32_t from = node.nameBegin + static_cast<uint32_t>(class_.size()), to = braces ? scan_.bodyOpen(type_) : scan_.contentEnd(definition.file, from);
    if (!braces && source.substr(node.span.begin, 10) != "@interface") return "its @interface is not in this tree";
    if (to > node.span.end) to = node.span.end;
    // A base list of its own, not one inside brackets.
    int depth = 0;
    uint32_t list = 0;
    for (uint32_t at = from; at < to; ++at) {
      if (scan_.inComment(definition.file, at)) continue;
      if (source[at] == '(') ++depth;
      if (source[at] == ')') --depth;
      bool word = source.substr(at, f_->clauseWord.size()) == f_->clauseWord && (!isWordByte(f_->clauseWord[0]) || !isWordByte(source[at - 1]));
      if (depth == 0 && word && list == 0) list = at;
      if (!braces && source[at] == '{') to = at;
    }
    std::string clause = filled(list ? f_->moreClause : f_->clause, {{"face", face_}});
    uint32_t at = to;
    while (at > from && isBlank(source[at - 1])) --at;
    if (!braces && list) at = list + 1;
    edits_.push_back({p_.path(definition), {at, at}, clause});
    return "";
  }

  // ----- naming it

  // The class as a variable's declaration writes it, with what of that the interface replaces.
  std::optional<Span> spanOfType(VariableIndex v) const {
    Place home = homeOf(v);
    NodeId written = writtenType(v);
    std::string_view source = scan_.text(home.file);
    Span span = p_.file(home)[written].span;
    // Signs of a pointer may stand beside the name.
    uint32_t begin = span.begin, end = span.end;
    size_t cut = f_->was.find("{class}");
    std::string_view before = f_->was.substr(0, cut), behind = f_->was.substr(cut + 7);
    std::string_view text = source.substr(begin, end - begin);
    size_t at = std::string_view::npos;
    for (size_t found = text.find(class_); found != std::string_view::npos; found = text.find(class_, found + 1)) {
      bool word = (found == 0 || !isWordByte(text[found - 1])) && (found + class_.size() >= text.size() || !isWordByte(text[found + class_.size()]));
      if (word) at = found;
    }
    if (at == std::string_view::npos) return std::nullopt;
    Span out{begin + static_cast<uint32_t>(at), begin + static_cast<uint32_t>(at + class_.size())};
    if (!before.empty()) {
      // *tides.TideTable: the name of the package stays.
      uint32_t sign = out.begin;
      while (sign > 0 && (isWordByte(source[sign - 1]) || source[sign - 1] == '.')) --sign;
      if (sign == 0 || source[sign - 1] != before.back()) return std::nullopt;
      out.begin = sign - 1;
    }
    for (char c : behind) {
      if (c == ' ') {
        while (out.end < source.size() && source[out.end] == ' ') ++out.end;
      } else {
        if (out.end >= source.size() || source[out.end] != c) return std::nullopt;
        ++out.end;
      }
    }
    return out;
  }

  std::string writeUnit(const std::vector<VariableIndex>& unit) {
    for (VariableIndex v : unit)
      if (std::string reason = rename(v); !reason.empty()) return reason;
    std::set<FileIndex> files;
    for (auto& [file, begin] : edited_) files.insert(file);
    for (FileIndex f : files)
      if (std::string reason = makeVisible(f); !reason.empty()) return reason;
    return "";
  }

  // One declaration may serve several names: Desk a, b.
  std::string rename(VariableIndex v) {
    Places homes = p_.variables[v].declarations;
    if (p_.variables[v].storage == Storage::Parameter && functionOf(v) != kNone) {
      const Function& fn = p_.functions[functionOf(v)];
      auto position = std::find(fn.parameters.begin(), fn.parameters.end(), v);
      size_t at = static_cast<size_t>(position - fn.parameters.begin());
      if (position != fn.parameters.end() && fn.declarations.size() > 1) {
        homes.clear();
        for (Place declaration : fn.declarations) {
          size_t seen = 0;
          for (NodeId c : children(p_.file(declaration), declaration.node))
            if (p_.file(declaration)[c].kind == Kind::Parameter && seen++ == at) homes.push_back({declaration.file, c});
        }
      }
    }
    for (Place home : homes) {
      std::optional<Span> span = spanAt(home);
      if (!span) return "the type of " + std::string(p_.text(p_.variables[v].name)) + " could not be read";
      std::string_view source = scan_.text(home.file);
      std::string was(source.substr(span->begin, span->size()));
      std::string is = filled(f_->is, {{"face", face_}});
      // (TideTable *)tides needs no blank, TideTable *tides does.
      if (is.back() == ' ' && span->end < source.size() && !isWordByte(source[span->end])) is.pop_back();
      if (!f_->was.empty() && f_->was[0] == '*') is = was.substr(1, was.size() - 1 - class_.size()) + is;
      if (!edited_.insert({home.file, span->begin}).second) continue;
      edits_.push_back({p_.path(home), *span, is});
    }
    return "";
  }
  std::optional<Span> spanAt(Place home) {
    for (VariableIndex v : held_)
      if (homeOf(v) == home) return spanOfType(v);
    // Another declaration of the same parameter.
    NodeId written = p_.file(home).child(home.node, Role::Type);
    if (written == kNoNode) return std::nullopt;
    std::string text = scan_.nodeText({home.file, written});
    size_t at = text.find(class_);
    if (at == std::string::npos) return std::nullopt;
    uint32_t begin = p_.file(home)[written].span.begin + static_cast<uint32_t>(at);
    Span out{begin, begin + static_cast<uint32_t>(class_.size())};
    if (!f_->was.ends_with("}")) {
      std::string_view source = scan_.text(home.file);
      while (out.end < source.size() && (source[out.end] == ' ' || source[out.end] == '*')) ++out.end;
    }
    return out;
  }

  std::string makeVisible(FileIndex f) {
    Place face = p_.types[there_].definition;
    std::string_view source = scan_.text(f);
    bool behind = f == face.file && std::all_of(edited_.begin(), edited_.end(), [&](const auto& at) { return at.first != f || at.second > p_.node(face).span.begin; });
    if (behind || (f == face.file && f_->forward.empty())) return "";
    if (!f_->forward.empty()) {
      // class Desk; stands for the header: so does a line for the interface.
      std::string line = filled(f_->forward, {{"class", class_}}), other = filled(f_->forwardFace, {{"class", face_}, {"face", face_}});
      if (size_t at = source.find(line); at != std::string_view::npos && source.find(other) == std::string_view::npos) {
        uint32_t end = static_cast<uint32_t>(at + line.size());
        edits_.push_back({p_.files[f].path, {end, end}, scan_.newlineOf(f) + scan_.indentOf(p_.types[type_].definition) + other});
      }
      return "";
    }
    if (f_->importsByName) return nameBeside(p_, scan_, f, class_, face_, edits_);
    if (!f_->typeImport.empty()) {
      // As the class's own line, where there is one.
      std::string head(f_->typeImport.substr(0, f_->typeImport.find('{')));
      for (size_t begin = 0; begin < source.size();) {
        size_t end = std::min(source.find('\n', begin), source.size());
        std::string line(trim(source.substr(begin, end - begin)));
        begin = end + 1;
        std::string bare = line;
        if (!bare.empty() && bare.back() == ';') bare.pop_back();
        bool named = line.substr(0, head.size()) == head && bare.size() > class_.size() && bare.compare(bare.size() - class_.size(), class_.size(), class_) == 0 && !isWordByte(bare[bare.size() - class_.size() - 1]);
        if (!named) continue;
        std::string name = bare.substr(head.size(), bare.size() - head.size() - class_.size()) + face_;
        importLine(p_, scan_, f, filled(f_->typeImport, {{"name", name}}), edits_);
        return "";
      }
    }
    return "";
  }

  const Program& p_;
  const Config& config_;
  TypeIndex type_;
  PlanMemory& memory_;
  mutable SourceScan scan_;
  const Language& language_;
  const Facing* f_ = nullptr;
  mutable std::unique_ptr<Signatures> signatures_;
  std::string class_, face_;
  TypeIndex there_ = kNone;  // the interface, once it is written
  bool collected_ = false;
  std::set<VariableIndex> held_, wanted_;  // what holds one; of that, what is to name the interface
  std::map<VariableIndex, std::string> refused_;
  std::map<VariableIndex, std::set<FunctionIndex>> members_;
  std::map<VariableIndex, std::vector<VariableIndex>> goesTo_;
  std::set<std::pair<FileIndex, uint32_t>> edited_;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string extractInterfaceRefusal(const Analysis& analysis, size_t type) {
  PlanMemory memory;
  return InterfaceExtractor(analysis, static_cast<TypeIndex>(type), memory).refusal();
}

NextStep nextExtractInterfaceStep(const Analysis& analysis, size_t type, PlanMemory& memory) { return InterfaceExtractor(analysis, static_cast<TypeIndex>(type), memory).run(); }

}  // namespace elmcart
