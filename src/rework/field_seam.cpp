#include "rework/field_seam.h"

#include <algorithm>
#include <map>
#include <optional>
#include <tuple>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/access.h"
#include "rework/parameter.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class FieldSeam {
 public:
  FieldSeam(const Analysis& a, const Entity& entity, const Given* given, PlanMemory& memory)
      : a_(a), p_(a.program), e_(entity), given_(given), memory_(memory),
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), m_(p_.language(e_.place.file).mending) {}

  std::string refusal() const {
    if (e_.kind != EntityKind::Singleton && e_.kind != EntityKind::SharedInstance && e_.kind != EntityKind::Ambient) return "inject is for singletons and shared instances, and this is a " + std::string(kindText(e_.kind));
    if (e_.type == kNone || !p_.types[e_.type].definition.known()) return "its class is not defined in this tree";
    if (e_.reset.known()) return "its slot is replaced at " + p_.path(e_.reset) + ":" + std::to_string(p_.line(e_.reset)) + ": what a field keeps would be another";
    bool plain = false;
    for (const AccessPoint& accessPoint : e_.accessPoints) plain |= accessPoint.function != kNone && p_.functions[accessPoint.function].mostArguments == 0;
    return plain ? "" : "it has no accessor that takes no arguments";
  }

  NextStep run() {
    NextStep out;
    std::map<TypeIndex, std::vector<std::pair<Place, FunctionIndex>>> work;
    for (const Consumer& c : e_.consumers) {
      if (c.alias != kNone || c.in == kNone || a_.config.tests.match(p_.path(c.place))) continue;
      Place access = given_ ? c.place : accessOf(p_, e_, c.place);
      const Function& in = p_.functions[c.in];
      if (!access.known() || in.owner == e_.type) continue;
      if (in.owner == kNone || in.isStaticMember()) {
        bool own = std::any_of(e_.accessPoints.begin(), e_.accessPoints.end(), [&](const AccessPoint& d) { return d.function == c.in; });
        bool start = in.form == FunctionForm::Initialiser || p_.text(in.name) == "main" || p_.text(in.name) == "init";
        if (!own && !start && !isHandedIn(access)) out.byHand.push_back({p_.path(access), p_.line(access), functionText(p_, c.in) + " belongs to no object: the move hand-in gives it a parameter", false});
        continue;
      }
      // What an earlier step put in fetches it by default.
      if (helperOf(in.owner) == c.in) continue;
      work[in.owner].emplace_back(access, c.in);
    }
    std::vector<TypeIndex> order;
    for (auto& [type, accesses] : work) order.push_back(type);
    sortByText(order);
    auto take = [&](Step step, Place place, const std::string& problem, bool blocks) {
      std::string reason = problem.empty() && memory_.refused.count(step.key()) ? std::string(kTakenBack) : problem;
      if (!reason.empty()) {
        out.byHand.push_back({p_.path(place), p_.line(place), reason, blocks});
        return false;
      }
      step.edits = std::move(edits_);
      out.found = true;
      out.step = std::move(step);
      return true;
    };
    for (TypeIndex type : order) {
      edits_.clear();
      Step step = stepOf(StepKind::Seam, std::string(p_.text(p_.types[type].qualified)));
      std::string reason = giveField(type, work[type].front().first, work[type].front().second);
      if (reason.empty()) reason = replace(work[type]);
      step.title = std::string(p_.text(p_.types[type].name)) + " has a field for the " + plainName(p_, e_.type) + "; while it is empty it fetches it as before";
      step.callSites = work[type].size();
      if (take(std::move(step), work[type].front().first, reason, true)) return out;
    }
    for (const Maker& maker : makers()) {
      edits_.clear();
      std::string title;
      std::string reason = hand(maker, title, out.byHand);
      Step step = stepOf(maker.type != kNone ? StepKind::Lift : StepKind::Compose, maker.type != kNone ? std::string(p_.text(p_.types[maker.type].qualified)) : functionText(p_, maker.in));
      step.title = title;
      step.creationSites = maker.creations.size();
      step.passesOnly = true;
      if (take(std::move(step), maker.creations.front(), reason, false)) return out;
    }
    for (TypeIndex type : withField()) {
      edits_.clear();
      if (!memory_.retire || !close(type)) continue;
      Step step = stepOf(StepKind::Retire, std::string(p_.text(p_.types[type].qualified)));
      step.title = plainName(p_, type) + " needs to be given the " + plainName(p_, e_.type) + ": all that make one do, and its default goes";
      step.creationSites = p_.creationsOfType[type].size();
      if (take(std::move(step), p_.types[type].definition, "", false)) return out;
    }
    out.finished = std::none_of(out.byHand.begin(), out.byHand.end(), [](const ByHand& b) { return b.blocksRetire; });
    return out;
  }

 private:
  // BerthBook: berthBook, without what a whole tree's names begin with.
  std::string fieldName() const {
    std::string name = plainName(p_, e_.type);
    size_t upper = 0;
    while (upper < name.size() && std::isupper(static_cast<unsigned char>(name[upper]))) ++upper;
    if (upper > 1 && upper < name.size()) name = name.substr(upper - 1);
    name[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(name[0])));
    return name;
  }
  std::string helperName() const {
    std::string field = fieldName(), capital = field;
    capital[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(capital[0])));
    return filled(m_->seamHelperName, {{"field", field}, {"Field", capital}});
  }

  // What fetches the object where nobody hands it in.
  std::string valueAt(Place model) { return given_ ? filled(given_->value, {{"wrap", plainName(p_, e_.type)}}) : scan_.nodeText(model); }

  // What the object is called inside of a function; empty: nothing.
  std::string itself(FunctionIndex f) {
    if (!m_->seamSelf.empty()) return std::string(m_->seamSelf);
    std::string word = wordForObject(p_, scan_, p_.functions[f].definition);
    return word.empty() ? objectNamedInFront(p_, scan_, p_.functions[f].definition) : word;
  }

  static Step stepOf(StepKind kind, std::string subject) {
    Step step;
    step.kind = kind;
    step.subject = std::move(subject);
    return step;
  }

  void sortByText(std::vector<TypeIndex>& types) const {
    std::sort(types.begin(), types.end(), [&](TypeIndex x, TypeIndex y) { return std::make_pair(p_.path(p_.types[x].definition), p_.line(p_.types[x].definition)) < std::make_pair(p_.path(p_.types[y].definition), p_.line(p_.types[y].definition)); });
  }
  std::string folderOf(FileIndex file) const { return p_.files[file].path.substr(0, p_.files[file].path.rfind('/') + 1); }

  // The member that hands out what is in the field of such a class; kNone: it has none.
  FunctionIndex helperOf(TypeIndex type) const {
    const TypeDecl& decl = p_.types[type];
    std::string field = fieldName();
    bool kept = std::any_of(decl.fields.begin(), decl.fields.end(), [&](VariableIndex v) { return p_.text(p_.variables[v].name) == field && p_.use(p_.variables[v].type).decl == e_.type; });
    if (!kept) return kNone;
    for (FunctionIndex m : decl.methods)
      if (p_.text(p_.functions[m].name) == helperName()) return m;
    return kNone;
  }
  // The classes that have a field for it by now, in the order of the text.
  std::vector<TypeIndex> withField() const {
    std::vector<TypeIndex> out;
    for (TypeIndex t = 0; t < p_.types.size(); ++t)
      if (t != e_.type && p_.types[t].definition.known() && p_.language(p_.types[t].definition.file).mending == m_ && helperOf(t) != kNone) out.push_back(t);
    sortByText(out);
    return out;
  }

  // Field and helper for a class that has none; `model`: how the object is fetched.
  std::string giveField(TypeIndex type, Place model, FunctionIndex user) {
    const TypeDecl& decl = p_.types[type];
    if (!decl.definition.known()) return "its class could not be read";
    if (!given_ && !p_.symbolAt(model).is(Symbol::Sort::Function)) return "its slot is reached without an accessor";
    if (helperOf(type) != kNone) return "";
    std::string field = fieldName(), named = itself(user);
    std::string typeName = m_->seamTypeOfClass ? plainName(p_, e_.type) : typeHandedOut(p_, scan_, model, p_.symbolAt(model).index());
    if (typeName.empty()) return "the class of the object cannot be named in this file: give it an exported name, or take an interface by hand";
    for (VariableIndex v : decl.fields)
      if (p_.text(p_.variables[v].name) == field) return std::string(p_.text(decl.name)) + " has a field " + field + " already";
    std::vector<std::pair<std::string_view, std::string>> words = {{"field", field}, {"helper", helperName()}, {"type", typeName}, {"class", std::string(p_.text(decl.name))}, {"value", valueAt(model)}, {"this", named.empty() ? "it" : named}};
    if (std::string reason = addField(type, filled(m_->seamField, words)); !reason.empty()) return reason;
    return addHelper(type, user, filled(m_->seamHelper, words));
  }

  // The object in the field of what a function belongs to; empty: that has no name there.
  std::string fromField(FunctionIndex in) {
    std::string self = itself(in);
    return self.empty() ? "" : filled(m_->seamUse, {{"this", self}, {"field", fieldName()}, {"helper", helperName()}});
  }

  std::string replace(const std::vector<std::pair<Place, FunctionIndex>>& accesses) {
    for (auto& [access, in] : accesses) {
      std::string use = fromField(in);
      if (use.empty()) return functionText(p_, in) + " has no name for its object";
      edits_.push_back({p_.path(access), p_.node(access).span, use});
    }
    return "";
  }

  // ----- where objects that have the field are made

  struct Maker {
    TypeIndex type = kNone;          // a class with an object at hand that may have the field, or …
    FunctionIndex in = kNone;        // … a function
    std::vector<Place> creations;
  };

  std::vector<Maker> makers() {
    std::vector<Maker> out;
    if (m_->seamGiven.empty() && m_->seamGivenAfter.empty()) return out;
    for (const Creation& c : p_.creations) {
      if (c.asBase || c.delegated || c.in == kNone || c.type == e_.type || p_.language(c.place.file).mending != m_ || a_.config.tests.match(p_.path(c.place))) continue;
      const Function& in = p_.functions[c.in];
      if (helperOf(c.type) == kNone || in.owner == e_.type || in.form == FunctionForm::Initialiser || isGiven(c.place)) continue;
      bool ofObject = in.owner != kNone && !in.isStaticMember();
      auto known = std::find_if(out.begin(), out.end(), [&](const Maker& m) { return ofObject ? m.type == in.owner : m.type == kNone && m.in == c.in; });
      if (known == out.end()) known = out.insert(out.end(), {ofObject ? in.owner : kNone, c.in, {}});
      known->creations.push_back(c.place);
    }
    auto key = [&](const Maker& m) { return std::make_tuple(m.type == kNone, p_.path(m.creations.front()), p_.line(m.creations.front())); };
    std::stable_sort(out.begin(), out.end(), [&](const Maker& x, const Maker& y) { return key(x) < key(y); });
    return out;
  }

  // Hands the object in at those of these places where that can be written. A text: why at none.
  std::string hand(const Maker& maker, std::string& title, std::vector<ByHand>& left) {
    std::string object = plainName(p_, e_.type), line;
    FileIndex file = maker.creations.front().file;
    Place model = modelFor(file, line);
    bool needsModel = maker.type == kNone || helperOf(maker.type) == kNone;
    constexpr std::string_view kUnnamed = "how the object is fetched could not be written here; by default it is fetched as before";
    if (needsModel && !model.known()) return std::string(kUnnamed);
    if (maker.type != kNone) {
      title = std::string(p_.text(p_.types[maker.type].name)) + " passes the " + object + " on to what it makes";
      if (needsModel) {
        FileIndex home = p_.types[maker.type].definition.file;
        std::string ofHome;
        if (!modelFor(home, ofHome).known()) return std::string(kUnnamed);
        if (std::string reason = giveField(maker.type, model, maker.in); !reason.empty()) return reason;
        if (!ofHome.empty() && home != file) importLine(p_, scan_, home, ofHome, edits_);
      }
    } else {
      title = functionText(p_, maker.in) + " hands in the " + object + " where it makes what takes it";
    }
    if (needsModel && !line.empty()) importLine(p_, scan_, file, line, edits_);
    size_t given = 0;
    std::vector<ByHand> problems;
    for (Place creation : maker.creations) {
      FunctionIndex in = functionOf(creation);
      std::string value = maker.type != kNone ? in == kNone ? "" : fromField(in) : valueAt(model), reason;
      if (creation.file != file && needsModel) reason = "others of its class are made in another file; by default it is fetched as before";
      else if (value.empty()) reason = "what makes it has no name for its own object";
      else reason = give(creation, value);
      if (reason.empty()) ++given;
      else problems.push_back({p_.path(creation), p_.line(creation), reason, false});
    }
    if (given == 0) {
      std::string first = problems.front().reason;
      left.insert(left.end(), problems.begin() + 1, problems.end());
      return first;
    }
    left.insert(left.end(), problems.begin(), problems.end());
    return "";
  }

  FunctionIndex functionOf(Place place) const {
    Place around = p_.around(place, Kind::Function);
    return around.node != kNoNode && p_.symbolAt(around).is(Symbol::Sort::Function) ? p_.symbolAt(around).index() : kNone;
  }

  // An access that could stand in that file too, in the file itself or in another of its
  // package; `import` is the line that it needs. Not known: there is none.
  Place modelFor(FileIndex file, std::string& import) {
    if (given_) return holdsWord(scan_.text(file), plainName(p_, given_->beside)) ? Place{file, 0} : Place{};
    std::vector<Place> calls;  // what the helpers fall back on too
    for (const AccessPoint& accessPoint : e_.accessPoints)
      if (accessPoint.function != kNone && accessPoint.sort == AccessPoint::Sort::Accessor)
        for (uint32_t c : p_.callsOfFunction[accessPoint.function])
          if (Place place = p_.calls[c].place; p_.language(place.file).mending == m_ && !a_.config.tests.match(p_.path(place))) calls.push_back(place);
    for (Place access : calls)
      if (access.file == file) return access;
    for (Place access : calls) {
      if (m_->seamTypeOfClass) {  // named by its class
        if (holdsWord(scan_.text(file), plainName(p_, e_.type))) return access;
        continue;
      }
      if (folderOf(access.file) != folderOf(file)) continue;
      std::string written = scan_.nodeText(access);
      size_t dot = written.find('.');
      if (dot == std::string::npos || dot > written.find('(')) return access;
      import = lineThatBrings(access.file, written.substr(0, dot));
      if (!import.empty()) return access;
    }
    return {};
  }
  // import "harbour/books", for what a file calls books.
  std::string lineThatBrings(FileIndex file, const std::string& package) {
    std::string_view source = scan_.text(file);
    for (const Node& node : p_.files[file].nodes) {
      if (node.kind != Kind::Import) continue;
      std::string_view text = source.substr(node.span.begin, node.span.size());
      size_t open = text.find('"'), close = open == std::string_view::npos ? open : text.find('"', open + 1);
      if (close == std::string_view::npos) continue;
      std::string_view path = text.substr(open + 1, close - open - 1);
      if (holdsWord(text.substr(0, open), package)) return "import " + package + " " + std::string(text.substr(open, close - open + 1));
      if (path.substr(path.rfind('/') + 1) == package) return "import " + std::string(text.substr(open, close - open + 1));
    }
    return "";
  }

  // What an object is put into when it is made, where that is a statement of its own.
  std::string targetOf(Place creation, Place& statement) {
    statement = p_.parent(creation);
    if (statement.node == kNoNode) return "";
    if (p_.node(statement).kind == Kind::Variable) return std::string(p_.nameOf(statement));
    if (p_.node(statement).kind != Kind::Assign || p_.node(creation).role == Role::Target) return "";
    return scan_.nodeText({statement.file, p_.file(statement).child(statement.node, Role::Target)});
  }
  // What fills the field of an object that is made there.
  bool isHandedIn(Place access) {
    Place creation = p_.around(access, Kind::Create);
    return creation.node != kNoNode && isGiven(creation);
  }
  // The braces of a literal that makes one, without them; empty: it is no literal.
  std::optional<Span> literalOf(Place creation) {
    std::string_view source = scan_.text(creation.file);
    NodeId type = p_.file(creation).child(creation.node, Role::Type);
    if (type == kNoNode) return std::nullopt;
    size_t open = source.find_first_not_of(" \t", p_.file(creation)[type].span.end);
    uint32_t end = p_.node(creation).span.end;
    if (open == std::string_view::npos || open >= end || source[open] != '{' || source[end - 1] != '}') return std::nullopt;
    return Span{static_cast<uint32_t>(open + 1), end - 1};
  }
  bool isGiven(Place creation) {
    if (!m_->seamGiven.empty()) {
      std::optional<Span> literal = literalOf(creation);
      return literal && scan_.text(creation.file).substr(literal->begin, literal->size()).find(fieldName() + ":") != std::string_view::npos;
    }
    Place statement;
    std::string target = targetOf(creation, statement);
    Place body = p_.around(creation, Kind::Function);
    if (target.empty() || body.node == kNoNode) return false;
    uint32_t begin = p_.node(creation).span.end, end = p_.node(body).span.end;
    return begin < end && scan_.text(creation.file).substr(begin, end - begin).find(target + "." + fieldName() + " =") != std::string_view::npos;
  }
  std::string give(Place creation, const std::string& value) {
    auto words = [&](const std::string& target) { return std::vector<std::pair<std::string_view, std::string>>{{"field", fieldName()}, {"value", value}, {"target", target}}; };
    if (!m_->seamGiven.empty()) {
      std::string text = scan_.nodeText(creation), type = text.substr(0, 4) == "new(" ? text.substr(4, text.size() - 5) : "";
      for (NodeId c : children(p_.file(creation), creation.node))
        if (p_.file(creation)[c].role == Role::Argument && type.empty()) return "its fields are given in their order, not by name; by default it is fetched as before";
      for (const Creation& c : p_.creations) {
        if (c.place == creation && folderOf(creation.file) != folderOf(p_.types[c.type].definition.file)) return "the field is known in its own package only: let that have a function that makes one";
      }
      if (!type.empty()) {
        std::string literal = "&" + type + "{" + filled(m_->seamGiven, words("")) + "}";
        bool inFront = p_.node(creation).role == Role::Receiver;
        edits_.push_back({p_.path(creation), p_.node(creation).span, inFront ? "(" + literal + ")" : literal});
        return "";
      }
      std::optional<Span> literal = literalOf(creation);
      if (!literal) return "how it is made could not be read; by default it is fetched as before";
      appendItem(p_, scan_, creation.file, *literal, filled(m_->seamGiven, words("")), edits_);
      return "";
    }
    Place statement;
    std::string target = targetOf(creation, statement);
    if (target.empty()) return "it is made in the middle of a statement: give it a name there; by default it is fetched as before";
    uint32_t end = scan_.contentEnd(creation.file, p_.node(statement).span.begin);
    uint32_t begin = scan_.lineBegin(creation.file, p_.node(statement).span.begin);
    std::string_view line = trim(scan_.text(creation.file).substr(begin, end - begin));
    if (line.empty() || line.back() != ';' || end < p_.node(creation).span.end) return "the statement that makes it does not stand on a line of its own; by default it is fetched as before";
    edits_.push_back({p_.path(creation), {end, end}, scan_.newlineOf(creation.file) + scan_.indentOf(statement) + filled(m_->seamGivenAfter, words(target))});
    return "";
  }

  // Where all are given it, tests too, the default goes.
  bool close(TypeIndex type) {
    FunctionIndex helper = helperOf(type);
    if (m_->seamDirect.empty() || p_.creationsOfType[type].empty() || !p_.functions[helper].definition.known()) return false;
    for (uint32_t c : p_.creationsOfType[type])
      if (!isGiven(p_.creations[c].place)) return false;
    // One that is there without being made, as a value, would have nothing.
    for (FileIndex f = 0; f < p_.files.size(); ++f) {
      const LoweredFile& file = p_.files[f];
      if (p_.language(f).mending != m_) continue;
      for (NodeId n = 1; n < file.nodes.size(); ++n)
        if (file[n].kind == Kind::TypeRef && !file[n].has(kPointer) && lastPart(file.name(n)) == p_.text(p_.types[type].name) && file[file.parents[n]].kind != Kind::Create) return false;
    }
    std::string tail = "." + helperName() + "()";
    for (uint32_t c : p_.callsOfFunction[helper]) {
      Place call = p_.calls[c].place;
      std::string text = scan_.nodeText(call);
      if (!text.ends_with(tail)) return false;
      edits_.push_back({p_.path(call), p_.node(call).span, filled(m_->seamDirect, {{"this", text.substr(0, text.size() - tail.size())}, {"field", fieldName()}})});
    }
    for (Place place : p_.functions[helper].declarations) scan_.removeDeclaration(place, edits_);
    return true;
  }

  // Behind the last field, or where the class's body opens.
  std::string addField(TypeIndex type, const std::string& line) {
    Place home = p_.types[type].definition;
    std::string_view source = scan_.text(home.file);
    std::string newline = scan_.newlineOf(home.file);
    if (m_->seamFieldInInterface) {
      // In front of the first member that is declared there.
      uint32_t at = 0;
      for (FunctionIndex m : p_.types[type].methods)
        for (Place place : p_.functions[m].declarations)
          if (place.file == home.file && p_.isInside(place, home.node)) {
            uint32_t begin = scan_.lineBegin(place.file, p_.node(place).span.begin);
            if (at == 0 || begin < at) at = begin;
          }
      if (at == 0) {
        size_t end = source.rfind("@end", p_.node(home).span.end);
        if (end == std::string_view::npos || end < p_.node(home).span.begin) return "the interface of its class could not be read";
        at = scan_.lineBegin(home.file, static_cast<uint32_t>(end));
      }
      at = scan_.withLinesAbove(home.file, at, {"//", "/*", "*"});
      edits_.push_back({p_.path(home), {at, at}, line + newline});
      return "";
    }
    uint32_t open = scan_.bodyOpen(type);
    size_t close = open < source.size() ? source.find('}', open) : std::string_view::npos;
    if (close == std::string_view::npos) return "the body of its class could not be read";
    uint32_t last = 0;
    for (VariableIndex v : p_.types[type].fields)
      for (Place place : p_.variables[v].declarations)
        if (place.file == home.file && p_.isInside(place, home.node)) last = std::max(last, p_.node(place).span.end);
    std::string indent = scan_.indentOf(home) + "\t";
    if (last > 0) {
      uint32_t end = scan_.contentEnd(home.file, last);
      if (end > close) return "the fields of its class stand on one line";
      // Apart from the others, which stay in line.
      edits_.push_back({p_.path(home), {end, end}, newline + newline + indent + line});
    } else {
      bool apart = open > 0 && source[open - 1] == ' ';
      edits_.push_back({p_.path(home), {open, static_cast<uint32_t>(close + 1)}, std::string(apart ? "" : " ") + "{" + newline + indent + line + newline + scan_.indentOf(home) + "}"});
    }
    return "";
  }

  // In front of the function that uses it first, with what documents that.
  std::string addHelper(TypeIndex type, FunctionIndex user, const std::string& pattern) {
    Place place = p_.functions[user].definition;
    for (FunctionIndex m : p_.types[type].methods) {
      Place other = p_.functions[m].definition;
      if (other.known() && other.file == place.file && p_.node(other).span.begin < p_.node(place).span.begin && !p_.functions[m].isStaticMember()) place = other;
    }
    uint32_t at = scan_.withLinesAbove(place.file, scan_.lineBegin(place.file, p_.node(place).span.begin), {"//", "/*", "*"});
    std::string newline = scan_.newlineOf(place.file);
    edits_.push_back({p_.path(place), {at, at}, laidOut(scan_, pattern, place.file, "", unitOfFile(scan_, place.file)) + newline + newline});
    return "";
  }

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  const Given* given_ = nullptr;
  PlanMemory& memory_;
  SourceScan scan_;
  const Mending* m_ = nullptr;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string fieldSeamRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return FieldSeam(analysis, analysis.survey.entities[entity], nullptr, memory).refusal();
}

NextStep nextFieldSeamStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return FieldSeam(analysis, analysis.survey.entities[entity], nullptr, memory).run(); }

NextStep nextFieldSeamOf(const Analysis& analysis, const Given& given, PlanMemory& memory) {
  Entity entity = entityOf(analysis, given);
  return FieldSeam(analysis, entity, &given, memory).run();
}

}  // namespace elmcart
