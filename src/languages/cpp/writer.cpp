// Writes changes in C++. Sections are of the standard, ISO/IEC 14882:2020.
#include "languages/writer.h"

#include <algorithm>
#include <map>
#include <optional>
#include <set>

#include "base/text.h"
#include "languages/cpp/cpp.h"
#include "source/list_layout.h"

namespace elmcart {
namespace {

constexpr std::string_view kOwners[] = {"unique_ptr", "shared_ptr"};

// A constructor or function takes the object by a default argument, [dcl.fct.default]: by reference, or by a pointer where
// the object is held by one whose value may be none or another one day.
class CppWriter final : public Writer {
 public:
  using Writer::Writer;

  std::string wordFor(std::string_view name) const override { return objectWord(name, writesUnderscores()); }
  std::string fieldOf(const ClassFacts& c) const override { return fieldIn(c); }
  bool namesBeside() const override { return true; }
  bool constructsStructs() const override { return true; }
  bool keepsBesideBase() const override { return true; }
  bool holdsByReference() const override { return true; }
  bool injectsFunctions() const override { return true; }
  bool hasMacros() const override { return true; }
  std::string typeAt(Spot place) const override {
    Spot function = functionAround(place);
    return nameFrom(place, scopeOf(function.known() ? function : place), handed_.qualified);
  }

  bool hands(Spot creation) override {
    if (creation->kind == Kind::Variable && isSetByAll(creation)) return true;
    for (Spot argument : argumentsOf(creation)) {
      std::string written = textOf(argument), bare = written.substr(written.find_first_not_of("*&") == std::string::npos ? 0 : written.find_first_not_of("*&"));
      if (isFieldNamed(bare, handed_.word)) return true;
      if (std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot a) { return a.file == creation.file && argument->span.contains(a->span.begin) && a->span.end <= argument->span.end; })) return true;
    }
    return false;
  }

  // A closure has what it captures, [expr.prim.lambda.capture].
  std::string whyNoObject(Spot place) override {
    if (Spot around = functionAround(place); !around.known()) return "it is no code of an object";
    return capturedAt(place, true) ? "" : std::string(kNotCaptured);
  }

 protected:
  bool breaksLists() const override { return true; }

  void begin(std::span<const Change> changes) override {
    entries_.clear();
    fresh_.clear();
    taking_.clear();
    constant_.clear();
    for (const Change& change : changes)
      if (change.kind == ChangeKind::TakeInFunction) constant_.insert(change.at);
    for (const Change& change : changes) {
      bool changing = change.kind == ChangeKind::Read ? !change.looksOnly : change.kind == ChangeKind::HandOn && !isConstant(parameterIn(change.callee));
      if (changing) constant_.erase(change.in);
    }
  }

  // ----- what cannot be done

  std::string canTake(const Change& change) override {
    if (std::string reason = whyNotClass(*change.of); !reason.empty()) return reason;
    Spot definition = change.at;
    bool defaulted = definition->has(kDefaulted);
    if (bodyOf(definition) == kNoNode && !defaulted) return "a constructor of " + change.of->name + " has no body in this tree";
    return whyNoParameter(change.at, change.of, "a constructor of " + change.of->name);
  }
  std::string canGetConstructor(const ClassFacts& c) override {
    if (std::string reason = whyNotClass(c); !reason.empty()) return reason;
    if (c.baseTakesArguments) return c.name + " has no constructor of its own, and what its base's takes stands elsewhere";
    for (Spot creation : c.creations)
      if (!argumentsOf(creation).empty()) return "the class is filled with a list of values at " + at(creation) + ", which a constructor would forbid";
    return whyNotSeen(c.type, c.name);
  }
  std::string canTakeInFunction(const Change& change) override {
    const Node& node = *change.at;
    std::string name(change.at.file->name(change.at.node));
    if (node.detail != static_cast<uint8_t>(FunctionForm::Function)) return name + " is an operator, whose parameters are fixed";
    if (bodyOf(change.at) == kNoNode) return name + " has no body in this tree";
    for (Spot declaration : declarationsOf(change.at))
      if (isTemplate(declaration)) return name + " is a template";
    return whyNoParameter(change.at, nullptr, name);
  }
  std::string canKeep(const ClassFacts& c) override { return whyNotClass(c); }
  std::string canMove(const Change& change) override {
    Spot initial = child(change.at, Role::Initialiser);
    if (!initial.known()) return "";
    return change.of->copies.empty() ? "" : change.of->name + " copies its objects by a constructor that may rely on that value";
  }
  std::string canRead(const Change& change) override {
    if (change.at->has(kInMacro)) return "it stands in a macro's call";
    if (change.from == From::Parameter && !capturedAt(change.at, false)) return std::string(kNotCaptured);
    if (change.from == From::Field && !capturedAt(change.at, true)) return std::string(kNotCaptured);
    if (change.of && holdsConstant(*change.of) && !change.looksOnly) return "it is held as a constant here, and this may change it";
    if (isOwner(typeOfSource())) {
      Spot up = parent(change.at);
      bool member = up->kind == Kind::Member && up->has(kArrow), object = up->kind == Kind::Dereference || (slotPoints() && up->kind == Kind::NullTest);
      if (!member && !object) return "the owner itself (a smart pointer) is used here, not only the object";
    }
    return "";
  }
  std::string canHandOn(const Change& change) override {
    if (change.at->has(kInMacro)) return "it is made by a macro";
    if (change.at->kind == Kind::Call && isPlaced(change.at)) return "how many of these arguments are the container's cannot be told";
    if (change.in.known() && change.from != From::Fetched && !capturedAt(change.at, change.from == From::Field)) return std::string(kNotCaptured);
    bool constant = change.of ? holdsConstant(*change.of) : change.from == From::Parameter && isConstant(parameterIn(change.in));
    if (constant && change.from != From::Fetched && change.callee.known() && parameterIn(change.callee).known() && !isConstant(parameterIn(change.callee)) && !sourceIsConstant()) return std::string(change.callee.file->name(change.callee.node)) + " may change the object, which is held as a constant here";
    std::string reason;
    (void)leftOut(change, reason);
    return reason;
  }
  std::string canHandToBase(const Change& change) override {
    Spot base = baseThatTakes(*change.of);
    return base.known() ? "" : "which base takes it could not be told";
  }
  std::string whyNotDropped(const Change& change) override {
    for (Spot declaration : declarationsOf(change.at)) {
      std::vector<Spot> parameters = parametersOf(declaration);
      for (Spot parameter : parameters) {
        bool ours = parameter.file->name(parameter.node) == handed_.word, valued = child(parameter, Role::Initialiser).known();
        if (ours && valued) return isLate() ? "its default is no object" : "";
        if (ours) break;
        if (valued && parameter->nameBegin == 0) return "a parameter in front of it has a default and no name";
      }
    }
    return "it has no default";
  }

  // ----- a constructor or function takes the object

  std::string take(const Change& change) override {
    if (std::string reason = addParameter(change.at, change.of); !reason.empty()) return reason;
    taking_.insert(change.at);
    if (keepsNow(change.of) && !delegates(change.at, *change.of)) entries_[change.at].push_back(keeping(*change.of));
    return "";
  }
  std::string makeConstructor(const Change& change) override {
    std::vector<Entry>& entries = fresh_[change.of];
    if (keepsNow(change.of)) entries.push_back(keeping(*change.of));
    return "";
  }
  std::string takeInFunction(const Change& change) override { return addParameter(change.at, nullptr); }

  std::string keep(const Change& change) override {
    const ClassFacts& c = *change.of;
    std::string line = declared(*c.type.file, typeFor(c.type, scopeOf(c.type)), fieldIsPointer(c) ? '*' : '&', fieldIn(c)) + ";";
    if (Spot next = fieldBehind(c); next.known()) files_.around()->insertLineBefore(next, line, *out_);
    else files_.around()->addMember(c.type, false, line, *out_);
    // A copy that is written out takes the field along.
    for (Spot copy : c.copies) {
      std::vector<Spot> parameters = parametersOf(copy);
      std::string_view other = parameters.empty() ? std::string_view() : parameters.front().file->name(parameters.front().node);
      if (other.empty()) return "a constructor of " + c.name + " copies without naming what it copies";
      entries_[copy].push_back({fieldIn(c), std::string(other) + "." + fieldIn(c), &c});
    }
    return "";
  }

  FirstValue firstValueOf(Spot field) override {
    std::string name(field.file->name(field.node));
    uint32_t end = field->nameBegin + static_cast<uint32_t>(name.size());
    Spot initial = child(field, Role::Initialiser);
    if (!initial.known()) return {name, {end, end}, {end, end}};
    std::string_view source = text(*field.file);
    uint32_t from = initial->span.begin;
    // What stands between the name and the value: `=`, or the bracket that opens a list of one.
    bool braced = source[from] == '{' || trim(source.substr(end, from - end)).ends_with('{');
    uint32_t close = field->span.end;
    while (close > from && (source[close - 1] == ';' || source[close - 1] == ' ')) --close;
    Span value = braced ? Span{end + static_cast<uint32_t>(source.substr(end).find('{')), close} : Span{from, close};
    return {name, value, {end, close}};
  }
  std::string setting(const std::string& name, const std::string& value) override {
    bool listed = !value.empty() && (value.front() == '{' || value.front() == '(');
    return name + (listed ? value : "(" + value + ")");
  }
  std::string setIn(Spot constructor, const std::vector<std::string>&) override {
    taking_.insert(constructor);
    return "";
  }

  std::string handToBase(const Change& change) override {
    Spot base = baseThatTakes(*change.of);
    std::string name(lastPart(base.file->name(base.node)));
    if (!change.at.known()) return fresh_[change.of].push_back({name, handed_.word, change.of}), "";
    for (Spot item : initialisersOf(change.at))
      if (lastPart(item.file->name(item.node)) == name) return give({ChangeKind::HandOn, item, change.of, From::Parameter, change.at, change.position, constructorThatTakes(base)});
    entries_[change.at].push_back({name, handed_.word, change.of});
    return "";
  }
  std::string handOn(const Change& change) override { return give(change); }

  std::string end(std::span<const Change> changes) override {
    std::set<const ClassFacts*> classes;
    for (const Change& change : changes)
      if (change.of) classes.insert(change.of);
    for (const ClassFacts* c : classes) {
      for (const std::string& statement : moved(c)) {
        Entry entry{statement.substr(0, statement.find_first_of("({")), "", c, statement};
        for (Spot constructor : c->constructors)
          if (taking_.contains(constructor) && !delegates(constructor, *c) && !sets(constructor, entry.name)) entries_[constructor].push_back(entry);
        if (c->constructors.empty()) fresh_[c].push_back(entry);
      }
    }
    for (auto& [constructor, entries] : entries_) addInitialisers(constructor, entries);
    for (auto& [c, entries] : fresh_) writeConstructor(*c, entries);
    return "";
  }

  // ----- reading what was handed in

  std::string read(const Change& change) override {
    std::vector<Span> spans = spansOf(change);
    for (Span span : spans)
      if (Spot place = nodeAt(change, span); place.known()) replace(place, change);
    return "";
  }

  // Who gives the last argument gives those in front of it, [dcl.fct.default]/4: their defaults go too.
  std::string drop(const Change& change) override {
    for (Spot declaration : declarationsOf(change.at))
      for (Spot parameter : parametersOf(declaration)) {
        std::string_view name = parameter.file->name(parameter.node);
        if (child(parameter, Role::Initialiser).known()) put(*parameter.file, {parameter->nameBegin + static_cast<uint32_t>(name.size()), parameter->span.end}, "");
        if (name == handed_.word) break;
      }
    return "";
  }

 private:
  static constexpr std::string_view kNotCaptured = "a lambda does not capture what it would need";

  struct Entry {  // of an initialiser list
    std::string name, value;
    const ClassFacts* of = nullptr;
    std::string whole = {};  // "name(value)" where that is written otherwise
    std::string text() const { return whole.empty() ? name + "(" + value + ")" : whole; }
  };

  // ----- small readings

  static Spot parent(Spot spot) { return {spot.file, spot.file->parents[spot.node]}; }
  static Spot child(Spot spot, Role role) {
    NodeId node = spot.file->child(spot.node, role);
    return node == kNoNode ? Spot{} : Spot{spot.file, node};
  }
  static NodeId bodyOf(Spot function) { return function.file->child(function.node, Role::Body); }
  static std::vector<Spot> childrenOf(Spot spot, Kind kind) {
    std::vector<Spot> out;
    for (NodeId c : children(*spot.file, spot.node))
      if ((*spot.file)[c].kind == kind) out.push_back({spot.file, c});
    return out;
  }
  static std::vector<Spot> parametersOf(Spot function) { return childrenOf(function, Kind::Parameter); }
  static std::vector<Spot> initialisersOf(Spot constructor) { return childrenOf(constructor, Kind::FieldInit); }
  static std::vector<Spot> argumentsOf(Spot call) {
    std::vector<Spot> out;
    for (NodeId c : children(*call.file, call.node))
      if ((*call.file)[c].role == Role::Argument) out.push_back({call.file, c});
    return out;
  }
  static Spot functionAround(Spot place) {
    for (Spot up = parent(place); up.node != kNoNode; up = parent(up))
      if (up->kind == Kind::Function) return up;
    return {};
  }
  static std::string at(Spot spot) { return spot.file->path + ":" + std::to_string(spot.file->line(spot.node)); }
  std::vector<Spot> declarationsOf(Spot function) const { return files_.around()->declarationsOf(function); }
  // Where default arguments stand: in a header, and not where the function is defined, if that is possible.
  Spot firstDeclaration(Spot function) const {
    Spot found = function;
    int best = 3;
    for (Spot declaration : declarationsOf(function)) {
      bool defines = bodyOf(declaration) != kNoNode;
      int rank = files_.around()->isHeader(*declaration.file) ? defines : 2;
      if (rank < best) best = rank, found = declaration;
    }
    return found;
  }
  static bool isTemplate(Spot declaration) {
    for (Spot up = declaration; up.node != kNoNode; up = parent(up)) {
      if (up->kind != Kind::Function && up->kind != Kind::Type) continue;
      for (NodeId c : children(*up.file, up.node))
        if ((*up.file)[c].role == Role::TypeParameter) return true;
    }
    return false;
  }
  static bool delegates(Spot constructor, const ClassFacts& c) { return delegatesTo(constructor, c.name); }
  static bool delegatesTo(Spot constructor, std::string_view name) {
    std::vector<Spot> all = initialisersOf(constructor);
    return std::any_of(all.begin(), all.end(), [&](Spot item) { return lastPart(item.file->name(item.node)) == name; });
  }
  // A member that each constructor of its class sets is not made by its declaration.
  bool isSetByAll(Spot field) const {
    Spot type = parent(field);
    if (type->kind != Kind::Type) return false;
    bool any = false;
    for (Spot member : childrenOf(type, Kind::Function)) {
      if (member->detail != static_cast<uint8_t>(FunctionForm::Constructor) || member->has(kDeleted)) continue;
      std::vector<Spot> all = declarationsOf(member);
      any = std::any_of(all.begin(), all.end(), [&](Spot one) { return sets(one, field.file->name(field.node)) || delegatesTo(one, type.file->name(type.node)); });
      if (!any) return false;
    }
    return any;
  }
  static bool sets(Spot constructor, std::string_view field) {
    std::vector<Spot> all = initialisersOf(constructor);
    return std::any_of(all.begin(), all.end(), [&](Spot item) { return item.file->name(item.node) == field; });
  }
  // The place inside of the function where what is written alike stands.
  static Spot nodeAt(const Change& change, Span span) {
    if (change.at->span.begin == span.begin) return change.at;
    for (NodeId n = change.in.known() ? change.in.node : 1; n < change.at.file->nodes.size(); ++n) {
      const Node& node = (*change.at.file)[n];
      if (node.kind == change.at->kind && node.span.begin == span.begin && node.span.end == span.end) return {change.at.file, n};
    }
    return {};
  }
  bool writesUnderscores() const {
    size_t underscores = 0, capitals = 0;
    std::set<const LoweredFile*> files{handed_.home};
    for (Spot access : handed_.accesses) files.insert(access.file);
    for (const LoweredFile* file : files)
      for (NodeId n = 1; file && n < file->nodes.size(); ++n) {
        const Node& node = (*file)[n];
        std::string_view name = file->name(n);
        bool local = node.kind == Kind::Parameter || (node.kind == Kind::Variable && (*file)[file->parents[n]].kind == Kind::Block);
        if (!local || name.size() < 3 || !std::islower(static_cast<unsigned char>(name[0]))) continue;
        bool capital = std::any_of(name.begin(), name.end(), [](unsigned char c) { return std::isupper(c); });
        capitals += capital;
        underscores += !capital && name.substr(1, name.size() - 2).find('_') != std::string_view::npos;
      }
    return underscores > capitals;
  }

  // A closure sees a parameter when it captures it, or all by reference; a copy would be another object. Members need `this`.
  static bool capturedAt(Spot place, bool ofObject) {
    for (Spot up = parent(place); up.node != kNoNode && up->kind != Kind::Function; up = parent(up)) {
      if (up->kind != Kind::Lambda) continue;
      std::vector<Spot> captures = childrenOf(up, Kind::Capture);
      bool fine = std::any_of(captures.begin(), captures.end(), [&](Spot c) {
        std::string_view name = c.file->name(c.node);
        return name.empty() ? ofObject || c->has(kReference) : ofObject && name == "this";
      });
      if (!fine) return false;
    }
    return true;
  }

  // ----- how the object is held and fetched

  // The type that the slot or the accessor's result is declared with.
  Spot typeOfSource() const {
    Spot source = handed_.accessor.known() ? handed_.accessor : handed_.slot;
    return source.known() ? child(source, Role::Type) : Spot{};
  }
  static bool isOwner(Spot type) { return type.known() && std::find(std::begin(kOwners), std::end(kOwners), lastPart(type.file->name(type.node))) != std::end(kOwners); }
  bool sourcePoints() const {
    Spot type = typeOfSource();
    return type.known() && (type->has(kPointer) || isOwner(type));
  }
  // A variable that points to the object, and is read by its name.
  bool slotPoints() const { return !handed_.accessor.known() && sourcePoints(); }
  // May the variable hold nothing, or another object, one day?
  bool isLate() const {
    if (isHidden()) return true;
    if (!slotPoints()) return handed_.late && !handed_.slotHoldsObject;
    Spot value = child(handed_.slot, Role::Initialiser);
    return handed_.late || !value.known() || value->is(Kind::Literal, LiteralForm::Null);
  }
  // A variable of one source file, which classes use that stand in headers: none of these can name it.
  bool isHidden() const {
    if (handed_.accessor.known()) return false;
    if (!hidden_) {
      std::vector<Spot> all = declarationsOf(handed_.slot);
      hidden_ = std::none_of(all.begin(), all.end(), [&](Spot one) { return files_.around()->isHeader(*one.file); }) &&
                std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [](Spot access) { return functionAround(access).known() && !scopePart(access.file->name(functionAround(access).node)).empty(); });
    }
    return *hidden_;
  }
  bool byPointer() const { return slotPoints() || isLate(); }
  bool sourceIsConstant() const {
    if (handed_.onlyLooked) return true;
    Spot type = typeOfSource();
    return type.known() && (type->has(kPointeeConst) || (!handed_.accessor.known() && !type->has(kPointer) && handed_.slot->has(kConst)));
  }
  // What fetches it; what is a member of its class is named with that.
  std::string fetchFrom(Spot at, std::string_view scope) const {
    std::string name = nameFrom(at, scope, handed_.fetched, scopePart(handed_.fetched) == handed_.qualified ? 2 : 1);
    // The parameter is seen from behind its own name on, [basic.scope.pdecl].
    if (name == handed_.word) name = scopePart(handed_.fetched).empty() ? "::" + handed_.fetched : handed_.fetched;
    if (!handed_.accessor.known()) return isOwner(typeOfSource()) ? name + ".get()" : name;
    std::string call = name + "()";
    if (isLate()) return !sourcePoints() ? "&" + call : isOwner(typeOfSource()) ? call + ".get()" : call;
    return sourcePoints() ? "*" + call : call;
  }
  // A class whose objects are assigned keeps it by a pointer: a reference would forbid that, [class.copy.assign].
  bool fieldIsPointer(const ClassFacts& c) const { return byPointer() || (keepsNow(&c) ? c.isAssigned : keptByPointer(c)); }
  static Spot fieldThere(const ClassFacts& c, const std::string& word) {
    if (c.keptIn.known()) return c.keptIn;
    for (NodeId member : children(*c.type.file, c.type.node))
      if ((*c.type.file)[member].kind == Kind::Variable && !(*c.type.file)[member].has(kStatic) && isFieldNamed(c.type.file->name(member), word)) return {c.type.file, member};
    return {};
  }
  bool keptByPointer(const ClassFacts& c) const {
    Spot field = fieldThere(c, handed_.word), type = field.known() ? child(field, Role::Type) : Spot{};
    return type.known() && type->has(kPointer);
  }
  bool holdsConstant(const ClassFacts& c) const {
    Spot field = fieldThere(c, handed_.word), type = field.known() ? child(field, Role::Type) : Spot{};
    return type.known() && type->has(kPointeeConst) && !sourceIsConstant();
  }
  // What takes the object in a constructor or function.
  Spot parameterIn(Spot function) const {
    for (Spot declaration : function.known() ? declarationsOf(function) : std::vector<Spot>{})
      for (Spot parameter : parametersOf(declaration))
        if (parameter.file->name(parameter.node) == handed_.word) return parameter;
    return {};
  }
  static bool isConstant(Spot parameter) { return parameter.known() && child(parameter, Role::Type).known() && child(parameter, Role::Type)->has(kPointeeConst); }
  // The initialiser of the field that keeps the parameter.
  Entry keeping(const ClassFacts& c) const { return {fieldIn(c), (c.isAssigned && !byPointer() ? "&" : "") + handed_.word, &c}; }
  // As the class marks its fields, or its file, or the file of the object's class.
  std::string fieldIn(const ClassFacts& c) const {
    if (Spot there = fieldThere(c, handed_.word); there.known()) return std::string(there.file->name(there.node));
    for (auto [file, type] : {std::pair{c.type.file, c.type.node}, {c.type.file, kNoNode}, {handed_.home, kNoNode}}) {
      int trailing = 0, prefix = 0, plain = 0;
      for (NodeId n = 1; file && n < file->nodes.size(); ++n) {
        const Node& node = (*file)[n];
        NodeId around = file->parents[n];
        if (node.kind != Kind::Variable || node.has(kStatic) || (*file)[around].kind != Kind::Type || (type != kNoNode && around != type)) continue;
        std::string_view name = file->name(n);
        if (name.size() > 1 && name.back() == '_') ++trailing;
        else if (name.starts_with("m_")) ++prefix;
        else ++plain;
      }
      if (trailing + prefix + plain == 0) continue;
      if (prefix > plain && prefix > trailing) return "m_" + handed_.word;
      if (trailing >= plain) break;
      // What fetches it by the same name goes on to mean that.
      return lastPart(handed_.fetched) == handed_.word ? handed_.word + "_" : handed_.word;
    }
    return handed_.word + "_";
  }

  // ----- names

  // The namespaces and classes around, with "::" between them; those that the name of a definition says too.
  static std::string scopeOf(Spot spot) {
    std::string out;
    for (Spot up = parent(spot); up.node != kNoNode; up = parent(up))
      if ((up->kind == Kind::Namespace || up->kind == Kind::Type) && !up.file->name(up.node).empty()) out = std::string(up.file->name(up.node)) + (out.empty() ? "" : "::" + out);
    if (spot->kind == Kind::Function)
      if (std::string_view own = scopePart(spot.file->name(spot.node)); !own.empty()) out += (out.empty() ? "" : "::") + std::string(own);
    return out;
  }
  // A qualified name as it may be written at a place of that scope, [basic.lookup.unqual]; so many of its last parts stay.
  std::string nameFrom(Spot at, std::string_view scope, std::string_view qualified, size_t parts = 1) const {
    std::string_view kept = lastPart(qualified), around = scopePart(qualified);
    for (size_t i = 1; i < parts && !around.empty(); ++i) {
      kept = qualified.substr(qualified.size() - kept.size() - 2 - lastPart(around).size());
      around = scopePart(around);
    }
    bool inside = around.empty() || scope == around || (scope.size() > around.size() && scope.starts_with(around) && scope.substr(around.size(), 2) == "::");
    return std::string(inside || isNamedShort(at, around, kept) ? kept : qualified);
  }
  static bool isNamedShort(Spot at, std::string_view around, std::string_view kept) {
    const LoweredFile& file = *at.file;
    for (NodeId n = 1; n < file.nodes.size(); ++n) {
      if (file[n].kind != Kind::Using || file[n].span.end > at->span.begin) continue;
      NodeId holder = file.parents[n];
      bool sees = holder == kNoNode || file.parents[holder] == kNoNode || (file[holder].span.begin <= at->span.begin && at->span.end <= file[holder].span.end);
      std::string_view named = file.name(n);
      if (sees && (file[n].has(kWholeScope) ? named == around : scopePart(named) == around && lastPart(named) == kept.substr(0, kept.find("::")))) return true;
    }
    return false;
  }
  std::string typeFor(Spot at, std::string_view scope, bool constant = false) const {
    std::string name = nameFrom(at, scope, handed_.qualified);
    return constant || sourceIsConstant() ? "const " + name : name;
  }

  // The sign of a reference or pointer stands by the name where it does so in most parameters of the file.
  std::string declared(const LoweredFile& file, const std::string& type, char sign, const std::string& name) {
    auto [found, isNew] = signByName_.try_emplace(&file);
    if (isNew) {
      std::string_view source = text(file);
      int byName = 0, byType = 0;
      for (NodeId n = 1; n < file.nodes.size(); ++n) {
        uint32_t begin = file[n].kind == Kind::Parameter ? file[n].nameBegin : 0;
        if (begin < 2 || file.name(n).empty()) continue;
        byName += source[begin - 1] == '&' || source[begin - 1] == '*';
        byType += source[begin - 1] == ' ' && (source[begin - 2] == '&' || source[begin - 2] == '*');
      }
      found->second = byName > byType;
    }
    return type + (found->second ? " " + std::string(1, sign) : std::string(1, sign) + " ") + name;
  }

  // ----- parameters

  std::string whyNotClass(const ClassFacts& c) const {
    if (!handed_.made.empty()) return std::string(kNotWritten);
    if (c.type->detail != static_cast<uint8_t>(TypeForm::Class) && c.type->detail != static_cast<uint8_t>(TypeForm::Struct)) return c.name + " is no ordinary class: nothing can be handed to a constructor of it";
    if (isTemplate(c.type)) return "the class is a template";
    return c.type->has(kInMacro) ? "the class is written by a macro" : "";
  }
  std::string whyNoParameter(Spot function, const ClassFacts* of, const std::string& name) const {
    for (Spot declaration : declarationsOf(function)) {
      if (declaration->has(kInMacro)) return name + " is made by a macro";
      Span list = parameterList(declaration);
      if (list.begin == 0) return "the parameter list of " + name + " could not be read";
      if (files_.text(*declaration.file).substr(list.begin, list.size()).find("...") != std::string_view::npos) return name + " takes any number of arguments";
    }
    return whyNotSeen(firstDeclaration(function), of ? of->name : name);
  }
  // Does the place where the default stands see what it names, [basic.scope.pdecl]?
  std::string whyNotSeen(Spot place, const std::string& name) const {
    Spot source = sourceFor(*place.file);
    if (!source.known()) return "what fetches it is declared in no header";
    if (source.file == place.file && source->span.begin > place->span.begin) return "it is declared further down in the same file than " + name + ": a default cannot name it there";
    if (Spot home = homeSpot(); home.file == place.file && home->span.end > place->span.begin) return "the class is defined further down in the same file than " + name + ": a default cannot name it there";
    if (source.file != place.file && !files_.around()->sees(*place.file, *source.file) && files_.around()->sees(*source.file, *place.file)) return "including the class's file from " + place.file->path + " would make a circle";
    return "";
  }
  Spot homeSpot() const {
    for (NodeId n = 1; n < handed_.home->nodes.size(); ++n)
      if ((*handed_.home)[n].kind == Kind::Type && (*handed_.home)[n].has(kDefinition) && handed_.home->name(n) == handed_.type) return {handed_.home, n};
    return {};
  }
  // The declaration of the accessor or variable that a file may come to see: in itself, or in a header.
  Spot sourceFor(const LoweredFile& file) const {
    if (isLate()) return homeSpot();
    Spot source = handed_.accessor.known() ? handed_.accessor : handed_.slot, found{};
    for (Spot declaration : source.known() ? files_.around()->declarationsOf(source) : std::vector<Spot>{}) {
      if (declaration.file == &file) return declaration;
      if (!found.known() && files_.around()->isHeader(*declaration.file)) found = declaration;
    }
    return found;
  }
  // From the bracket that opens it to that which closes it.
  Span parameterList(Spot declaration) const { return files_.around()->parameterList(declaration); }

  std::string parameterText(Spot at, std::string_view scope, bool constant, bool withDefault) {
    std::string text = declared(*at.file, typeFor(at, scope, constant), byPointer() ? '*' : '&', handed_.word);
    return withDefault ? text + " = " + (isLate() ? "nullptr" : fetchFrom(at, scope)) : text;
  }
  std::string addParameter(Spot function, const ClassFacts* of) {
    Spot first = firstDeclaration(function);
    std::string scope = of ? scopeOf(of->type) + (scopeOf(of->type).empty() ? "" : "::") + of->name : scopeOf(function);
    for (Spot declaration : declarationsOf(function)) {
      const LoweredFile& file = *declaration.file;
      std::string parameter = parameterText(declaration, scope, of ? holdsConstant(*of) : constant_.contains(function), declaration == first);
      std::vector<Span> items;
      for (Spot p : parametersOf(declaration)) items.push_back(p->span);
      Span list = parameterList(declaration);
      if (items.empty()) put(file, {list.begin + 1, list.end - 1}, parameter);  // f(void) as well
      else insert(file, items.back().end, separatorBehind(text(file), items, parameter.size()) + parameter);
      // What could be called with nothing must not convert by the new one, [class.conv.ctor].
      if (of && declaration == first && items.empty() && !declaration->has(kExplicit)) insert(file, declaration->span.begin, "explicit ");
      if (declaration == first) document(declaration);
    }
    include(*first.file);
    return "";
  }
  void include(const LoweredFile& file) {
    Spot source = sourceFor(file);
    const LoweredFile& other = *source.file;
    if (&other == &file || files_.around()->sees(file, other) || !once(file, "include")) return;
    files_.around()->include(file, other, *out_);
  }
  // "@param word" where the others are documented so.
  void document(Spot declaration) {
    const LoweredFile& file = *declaration.file;
    uint32_t line = lineBegin(file, declaration->span.begin);
    if (line == 0) return;
    std::string_view source = text(file);
    for (Span comment : file.comments) {
      if (comment.end > declaration->span.begin || comment.end + 2 < line || !trim(source.substr(comment.end, declaration->span.begin - comment.end)).empty()) continue;
      std::string_view said = source.substr(comment.begin, comment.size());
      for (std::string_view mark : {"@param", "\\param"})
        if (said.starts_with("/**") && said.find(std::string("* ") + std::string(mark)) != std::string_view::npos)
          documentBehind(file, files_.tree(file).covering({comment.begin + 1, comment.begin + 2}, {"comment"}), "* " + std::string(mark), "* " + std::string(mark) + " " + handed_.word);
    }
  }

  // ----- initialiser lists, in the order of initialisation, [class.base.init]/13

  // The field in front of which a new one stands: the first that is not for everybody, where none is moved that reads it.
  Spot fieldBehind(const ClassFacts& c) const {
    Spot first{};
    for (Spot field : childrenOf(c.type, Kind::Variable)) {
      if (field->has(kStatic)) continue;
      if (!first.known()) first = field;
      if (!moved(&c).empty()) break;
      if (field->has(kPrivate | kProtected)) return field;
    }
    return first;
  }
  std::pair<int, int> orderOf(const ClassFacts& c, std::string_view name) const {
    int base = 0, field = 0, added = 0;
    Spot behind = keepsNow(&c) ? fieldBehind(c) : Spot{};
    for (NodeId n : children(*c.type.file, c.type.node)) {
      const Node& node = (*c.type.file)[n];
      if (node.role == Role::Base) {
        if (lastPart(c.type.file->name(n)) == lastPart(name)) return {0, base};
        ++base;
      }
      if (node.kind != Kind::Variable || node.has(kStatic)) continue;
      if (behind == Spot{c.type.file, n}) added = field - 1;
      if (c.type.file->name(n) == name) return {1, field};
      field += 2;  // between two of them there is room for another
    }
    return {1, keepsNow(&c) && name == fieldIn(c) ? added : field};
  }
  void sortEntries(std::vector<Entry>& entries) const {
    std::stable_sort(entries.begin(), entries.end(), [&](const Entry& x, const Entry& y) { return orderOf(*x.of, x.name) < orderOf(*y.of, y.name); });
  }
  static std::string joined(const std::vector<Entry>& entries) {
    std::vector<std::string> texts;
    for (const Entry& entry : entries) texts.push_back(entry.text());
    return joinWith(texts, ", ");
  }
  void addInitialisers(Spot constructor, std::vector<Entry> entries) {
    if (entries.empty()) return;
    const LoweredFile& file = *constructor.file;
    sortEntries(entries);
    if (constructor->has(kDefaulted) && bodyOf(constructor) == kNoNode) return put(file, {parameterList(constructor).end, constructor->span.end}, " : " + joined(entries) + " {}");
    std::vector<Span> items;
    std::vector<std::pair<int, int>> present;
    for (Spot item : initialisersOf(constructor)) {
      items.push_back(item->span);
      present.push_back(orderOf(*entries.front().of, file.name(item.node)));
    }
    if (items.empty()) return insert(file, headEnd(constructor), " : " + joined(entries));
    // Those that come behind the same one stand together.
    std::map<size_t, std::vector<Entry>> behind;
    for (const Entry& entry : entries)
      behind[static_cast<size_t>(std::find_if(present.begin(), present.end(), [&](const auto& p) { return p > orderOf(*entry.of, entry.name); }) - present.begin())].push_back(entry);
    for (auto& [after, together] : behind) {
      std::string written = joined(together);
      if (after == 0) insert(file, items.front().begin, written + separatorInFront(text(file), items, written.size()));
      else insert(file, items[after - 1].end, separatorBehind(text(file), items, written.size()) + written);
    }
  }
  // Behind what stands in front of a body, on whatever line that begins.
  uint32_t headEnd(Spot constructor) {
    std::string_view source = text(*constructor.file);
    uint32_t end = (*constructor.file)[bodyOf(constructor)].span.begin;
    while (end > 0 && std::isspace(static_cast<unsigned char>(source[end - 1]))) --end;
    return end;
  }
  void writeConstructor(const ClassFacts& c, std::vector<Entry> entries) {
    sortEntries(entries);
    std::string made = "explicit " + c.name + "(" + parameterText(c.type, scopeOf(c.type), false, true) + ")";
    files_.around()->addMember(c.type, true, made + (entries.empty() ? "" : " : " + joined(entries)) + " {}", *out_);
    include(*c.type.file);
  }

  // ----- handing on

  Spot baseThatTakes(const ClassFacts& c) const {
    for (NodeId n : children(*c.type.file, c.type.node)) {
      if ((*c.type.file)[n].role != Role::Base) continue;
      for (Spot type : c.lineage)
        if (!(type == c.type) && type.file->name(type.node) == lastPart(c.type.file->name(n)) && constructorThatTakes(type).known()) return type;
    }
    return {};
  }
  Spot constructorThatTakes(Spot type) const {
    for (Spot member : childrenOf(type, Kind::Function))
      for (Spot parameter : parametersOf(member))
        if (member->detail == static_cast<uint8_t>(FunctionForm::Constructor) && parameter.file->name(parameter.node) == handed_.word) return member;
    return {};
  }
  static std::string_view memberCalled(Spot call) {
    Spot callee = child(call, Role::Callee);
    return callee.known() && callee->kind == Kind::Member ? callee.file->name(callee.node) : std::string_view();
  }
  // `emplace(…)`: the first of these arguments may be a position, or a key with the only other as its value.
  static bool isPlaced(Spot call) { return memberCalled(call) == "emplace" || memberCalled(call) == "emplace_hint"; }
  // `map.try_emplace(key, …)`, [map.modifiers]
  static bool isPlacedWithKey(Spot call) { return memberCalled(call) == "try_emplace"; }
  // What stands for parameters that are left out at a call: their defaults, where those can be written elsewhere.
  std::string leftOut(const Change& change, std::string& reason) const {
    if (!change.callee.known()) return "";
    size_t given = argumentsOf(change.at).size() - isPlacedWithKey(change.at);
    std::vector<Spot> declarations = declarationsOf(change.callee);
    std::vector<std::string> values;
    for (Spot declaration : declarations) {
      std::vector<Spot> parameters = parametersOf(declaration);
      values.resize(parameters.size());
      for (size_t i = 0; i < parameters.size(); ++i) {
        if (parameters[i].file->name(parameters[i].node) == handed_.word) {
          values.resize(i);
          break;
        }
        Spot value = child(parameters[i], Role::Initialiser);
        bool plain = value.known() && (value->kind == Kind::Literal || value->kind == Kind::Create || value->kind == Kind::Collection);
        if (plain && values[i].empty()) values[i] = std::string(files_.text(*value.file).substr(value->span.begin, value->span.size()));
      }
    }
    std::string out;
    for (size_t i = given; i < values.size(); ++i) {
      if (values[i].empty()) return reason = "a default argument in front of it cannot be written out here", "";
      out += values[i] + ", ";
    }
    return out;
  }
  std::string objectFor(const Change& change) const {
    if (change.from == From::Parameter) return handed_.word;
    std::string scope = change.in.known() ? scopeOf(change.in) : scopeOf(change.at);
    if (change.from == From::Fetched) return fetchFrom(change.at, scope);
    std::string field = fieldIn(*change.of);
    return fieldIsPointer(*change.of) && !byPointer() ? "*" + field : field;
  }
  std::string give(const Change& change) {
    std::string reason, object = leftOut(change, reason) + objectFor(change);
    const LoweredFile& file = *change.at.file;
    const Node& node = *change.at;
    std::vector<Span> given;
    for (Spot argument : argumentsOf(change.at)) given.push_back(argument->span);
    std::string_view source = text(file);
    if (!given.empty()) return insert(file, given.back().end, (node.kind == Kind::FieldInit ? ", " : separatorBehind(source, given, object.size())) + object), "";
    char close = node.span.end > 0 ? source[node.span.end - 1] : ' ';
    uint32_t nameEnd = node.nameBegin + static_cast<uint32_t>(lastPart(file.name(change.at.node)).size());
    bool apart = change.from == From::Fetched && file[file.parents[change.at.node]].kind == Kind::Type;  // a member's declaration has no round ones
    if (node.kind == Kind::Variable) insert(file, nameEnd, (apart ? "{" : "(") + object + (apart ? "}" : ")"));
    else if (close == ')' || close == '}') insert(file, node.span.end - 1, object);
    else if (node.is(Kind::Create, CreateForm::Heap)) insert(file, node.span.end, "(" + object + ")");
    else return "the arguments of this creation could not be found";
    return "";
  }

  // ----- an access becomes what was handed in

  // Does something else in the function go by that name?
  static bool hides(Spot function, std::string_view name) {
    for (NodeId n = function.known() ? function.node : 0; function.known() && n < function.file->nodes.size() && (*function.file)[n].span.begin < function->span.end; ++n)
      if (((*function.file)[n].kind == Kind::Variable || (*function.file)[n].kind == Kind::Parameter) && function.file->name(n) == name) return true;
    return false;
  }
  // `Gauge& gauge = Gauge::get();` where that is what the parameter is called.
  bool isOwnName(Spot variable) const {
    bool object = variable->kind == Kind::Dereference;
    if (object) variable = parent(variable);
    Spot type = variable->kind == Kind::Variable ? child(variable, Role::Type) : Spot{};
    bool refers = type.known() && (type->has(kReference | kPointer) || (type.file->name(type.node) == "auto" && sourcePoints() && !object));
    return refers && variable.file->name(variable.node) == handed_.word;
  }
  // `(*gauge)`: the brackets go with the sign.
  Span withBrackets(Spot dereference) {
    std::string_view source = text(*dereference.file);
    Span span = dereference->span;
    bool alone = span.begin > 1 && source[span.begin - 1] == '(' && source[span.end] == ')' && !isWordByte(source[span.begin - 2]);
    return alone ? Span{span.begin - 1, span.end + 1} : span;
  }
  // The local goes, and what it pointed to is the parameter.
  void dropOwnName(Spot variable) {
    const LoweredFile& file = *variable.file;
    std::string_view source = text(file);
    uint32_t end = variable->span.end;
    while (end < source.size() && (source[end] == ' ' || source[end] == ';')) ++end;
    put(file, wholeLines(file, {variable->span.begin, end}), "");
    if (child(variable, Role::Type)->has(kReference) || byPointer()) return;
    Span around = functionAround(variable)->span;
    for (NodeId n = variable.node + 1; n < file.nodes.size() && file[n].span.begin < around.end; ++n) {
      if (file[n].kind != Kind::Name || file.name(n) != handed_.word) continue;
      Spot use{&file, n}, up = parent(use);
      if (up->kind == Kind::Member && up->has(kArrow)) put(file, {use->span.end, up->nameBegin}, ".");
      else if (up->kind == Kind::Dereference) put(file, withBrackets(up), handed_.word);
      else insert(file, use->span.begin, "&");
    }
  }
  void replace(Spot access, const Change& change) {
    const LoweredFile& file = *access.file;
    std::string name = change.from == From::Parameter ? handed_.word : fieldIn(*change.of);
    bool pointer = byPointer() || (change.from == From::Field && fieldIsPointer(*change.of));
    Spot up = parent(access);
    if (change.from == From::Field && hides(functionAround(access), name)) name = "this->" + name;
    if (change.from == From::Parameter && isOwnName(up)) return dropOwnName(up->kind == Kind::Dereference ? parent(up) : up);
    bool member = up->kind == Kind::Member && child(up, Role::Receiver) == access, points = sourcePoints();
    if (isLate()) {
      std::string own = textOf(access);
      if (own == handed_.word && change.from == From::Parameter) own = (scopePart(handed_.fetched).empty() ? "::" : "") + handed_.fetched;
      bool bare = slotPoints() && !isOwner(typeOfSource());
      std::string fallback = bare ? own : points ? (isOwner(typeOfSource()) ? own + ".get()" : own) : "&" + own;
      std::string chosen = "(" + name + " ? " + name + " : " + fallback + ")";
      if (points) return put(file, access->span, chosen);
      return member ? put(file, {access->span.begin, up->nameBegin}, chosen + "->") : put(file, access->span, "*" + chosen);
    }
    if (slotPoints()) return put(file, access->span, name);
    if (member && (pointer || points) && up->has(kArrow) == points) return put(file, {access->span.begin, up->nameBegin}, name + (pointer ? "->" : "."));
    std::string whole = pointer ? "(*" + name + ")" : name;
    if (!points) return put(file, access->span, whole);
    if (up->kind == Kind::Dereference) return put(file, withBrackets(up), whole);
    put(file, access->span, pointer ? name : "&" + name);
  }

  std::map<Spot, std::vector<Entry>> entries_;             // by constructor
  std::map<const ClassFacts*, std::vector<Entry>> fresh_;  // of classes that get a constructor
  mutable std::optional<bool> hidden_;
  std::map<const LoweredFile*, bool> signByName_;
  std::set<Spot> taking_, constant_;  // constructors that take it; functions that take it as a constant
};

}  // namespace

std::unique_ptr<Writer> cppWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<CppWriter>(files, handed); }

}  // namespace elmcart
