#include "rework/accessor.h"

#include <algorithm>
#include <set>
#include <tuple>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/writing.h"

namespace elmcart {

namespace {

// Cuts that meet become one.
void mergeCuts(const Program& p, SourceScan& scan, std::vector<FileEdit>& cuts) {
  std::sort(cuts.begin(), cuts.end(), [](const FileEdit& x, const FileEdit& y) { return std::tie(x.path, x.span.begin) < std::tie(y.path, y.span.begin); });
  std::vector<FileEdit> out;
  for (FileEdit& cut : cuts) {
    if (!out.empty() && out.back().path == cut.path && cut.span.begin <= out.back().span.end) out.back().span.end = std::max(out.back().span.end, cut.span.end);
    else out.push_back(std::move(cut));
  }
  for (FileEdit& cut : out)
    for (FileIndex f = 0; f < p.files.size(); ++f)
      if (p.files[f].path == cut.path && cut.span.end > 0 && cut.span.end < scan.text(f).size() && scan.text(f)[cut.span.end - 1] == '\n') cut.span = scan.withBlankLines(f, cut.span);
  cuts = std::move(out);
}

// What only stood around them inside the class goes with them: companion object { … }
void takeEmptyShells(const Program& p, SourceScan& scan, TypeIndex type, std::vector<FileEdit>& cuts) {
  Place home = p.types[type].definition;
  std::string_view source = scan.text(home.file);
  uint32_t open = scan.bodyOpen(type);
  for (FileEdit& cut : cuts) {
    if (cut.path != p.path(home) || cut.span.begin <= open + 1) continue;
    size_t before = source.find_last_not_of(" \t\r\n", cut.span.begin - 1), behind = source.find_first_not_of(" \t\r\n", cut.span.end);
    if (before == std::string_view::npos || behind == std::string_view::npos || before <= open || source[before] != '{' || source[behind] != '}' || behind + 1 >= p.node(home).span.end) continue;
    cut.span.begin = scan.lineBegin(home.file, static_cast<uint32_t>(before));
    cut.span.end = static_cast<uint32_t>(std::min(source.find('\n', behind), source.size() - 1) + 1);
    while (cut.span.begin > 0 && trim(source.substr(scan.lineBegin(home.file, cut.span.begin - 1), cut.span.begin - scan.lineBegin(home.file, cut.span.begin - 1))).empty()) cut.span.begin = scan.lineBegin(home.file, cut.span.begin - 1);
  }
}

}  // namespace

std::string creationElsewhere(const Program& p, SourceScan& scan, const Entity& e, std::string& creation) {
  Place place = e.creation.place;
  const LoweredFile& file = p.file(place);
  const Node& node = file[place.node];
  if (p.types[e.type].form == TypeForm::Object || p.types[e.type].form == TypeForm::Enum) return "the language makes it, as what it is declared to be";
  TypeIndex made = e.creation.made != kNone ? e.creation.made : e.type;
  if (made != e.type) return "what is made is a " + plainName(p, made) + ", and asked for is a " + plainName(p, e.type);
  bool values = p.language(place.file).owning != nullptr;
  if (!values && node.kind != Kind::Create && node.kind != Kind::Call) return "how it is made could not be read";
  std::vector<NodeId> arguments = node.kind == Kind::Variable ? std::vector<NodeId>{} : argumentsOf(file, place.node);
  std::string list;
  for (NodeId a : arguments) {
    if (file[a].kind != Kind::Literal) return "it is made of what may not be known elsewhere (" + p.path(place) + ":" + std::to_string(p.line(place)) + ")";
    list += (list.empty() ? "" : ", ") + scan.nodeText({place.file, a});
  }
  if (values) {
    creation = list.empty() ? "" : "{" + list + "}";
    return "";
  }
  creation = scan.nodeText(place);
  // Inside its own class it may go by another name: new self(), new static(), cls(), Self().
  std::string type = plainName(p, e.type);
  for (std::string_view own : {"self", "static", "cls", "Self", "this"})
    for (const std::string& before : {std::string("new "), std::string()})
      if (creation.substr(0, before.size() + own.size() + 1) == before + std::string(own) + "(") creation = before + type + creation.substr(before.size() + own.size());
  if (creation.find(type) == std::string::npos) return "how it is made does not name its class";
  return "";
}

std::string openConstructor(const Program& p, SourceScan& scan, const Entity& e, FileIndex from, std::vector<FileEdit>& edits) {
  const TypeDecl& decl = p.types[e.type];
  const Settling* s = p.language(decl.definition.file).settling;
  bool values = p.language(decl.definition.file).owning != nullptr;
  std::vector<FileEdit> cuts;
  for (FunctionIndex m : decl.methods) {
    const Function& fn = p.functions[m];
    bool special = fn.form == FunctionForm::Constructor || (values && fn.form == FunctionForm::Destructor);
    if (!special || !(fn.modifiers & (kPrivate | kProtected)) || (fn.modifiers & kDeleted)) continue;
    Place place = fn.declarations.front();
    if (values) {
      // A copy's constructor stays where it is.
      if (fn.form == FunctionForm::Constructor && fn.parameters.size() == 1 && p.use(p.variables[fn.parameters[0]].type).decl == e.type) continue;
      scan.removeDeclaration(place, cuts);
      scan.addPublicMember(e.type, scan.nodeText(place), edits);
      continue;
    }
    std::string_view source = scan.text(place.file);
    const Node& node = p.node(place);
    uint32_t begin = std::min(node.span.begin, scan.lineBegin(place.file, node.nameBegin ? node.nameBegin : node.span.begin));
    std::string_view head = source.substr(begin, std::min<size_t>(source.find('(', begin), source.size()) - begin);
    bool elsewhere = p.path(place).substr(0, p.path(place).rfind('/') + 1) != p.files[from].path.substr(0, p.files[from].path.rfind('/') + 1);
    bool opened = false;
    for (std::string_view word : {"private", "protected", "fileprivate"}) {
      size_t at = head.find(word);
      if (at == std::string_view::npos) continue;
      uint32_t to = begin + static_cast<uint32_t>(at + word.size());
      std::string is(s->open);
      if (elsewhere && !s->openElsewhere.empty()) is = s->openElsewhere;
      while (is.empty() && source[to] == ' ') ++to;
      // class TideTable private constructor(…): without the one word the other says nothing.
      uint32_t at0 = begin + static_cast<uint32_t>(at);
      if (is.empty() && source.substr(to, 12) == "constructor(" && at0 > 0 && source[at0 - 1] == ' ' && isWordByte(source[at0 - 2])) {
        edits.push_back({p.path(place), {at0 - 1, to + 11}, ""});
        opened = true;
        break;
      }
      edits.push_back({p.path(place), {begin + static_cast<uint32_t>(at), to}, is});
      opened = true;
      break;
    }
    if (opened) continue;
    if (std::string_view name = p.nameOf(place); !name.empty() && name[0] == '_' && from != place.file) return "its constructor is known in its own file only";
    if (from != place.file) return "its constructor could not be opened";
  }
  mergeCuts(p, scan, cuts);
  edits.insert(edits.end(), cuts.begin(), cuts.end());
  return "";
}

std::string removeAccessor(const Program& p, SourceScan& scan, const Entity& e, std::vector<FileEdit>& edits, const std::vector<Place>& replaced) {
  auto isReplaced = [&](Place place) { return std::any_of(replaced.begin(), replaced.end(), [&](Place r) { return r.file == place.file && p.isInside(place, r.node); }); };
  std::set<FunctionIndex> accessPoints;
  for (const AccessPoint& accessPoint : e.accessPoints)
    if (accessPoint.function != kNone) {
      if (accessPoint.sort == AccessPoint::Sort::Helper) return functionText(p, accessPoint.function) + " hands it out too";
      accessPoints.insert(accessPoint.function);
    }
  if (e.creation.in != kNone && p.functions[e.creation.in].form == FunctionForm::Function) accessPoints.insert(e.creation.in);
  for (FunctionIndex accessPoint : accessPoints)
    for (uint32_t c : p.callsOfFunction[accessPoint])
      if ((p.calls[c].in == kNone || !accessPoints.count(p.calls[c].in)) && !isReplaced(p.calls[c].place)) return "its accessor is still called (" + p.path(p.calls[c].place) + ":" + std::to_string(p.line(p.calls[c].place)) + ")";
  std::vector<VariableIndex> slots = e.slots;
  if (std::find(slots.begin(), slots.end(), e.slot) == slots.end()) slots.push_back(e.slot);
  for (VariableIndex slot : slots)
    for (uint32_t u : p.usesOfVariable[slot]) {
      const Use& use = p.uses[u];
      if (isReplaced(use.place)) continue;
      bool own = use.in == kNone ? use.place.file == p.variables[slot].declarations.front().file : accessPoints.count(use.in) > 0 || p.functions[use.in].form == FunctionForm::Initialiser;
      if (!own) return "its slot is still used (" + p.path(use.place) + ":" + std::to_string(p.line(use.place)) + ")";
      if (use.in != kNone && p.functions[use.in].form == FunctionForm::Initialiser) return "its slot is set while its class is loaded: take that away by hand";
    }
  std::vector<Place> gone;
  for (FunctionIndex accessPoint : accessPoints)
    for (Place place : p.functions[accessPoint].declarations) gone.push_back(place);
  auto add = [&](VariableIndex v) {
    if (p.variables[v].storage == Storage::FunctionStatic) return;  // goes with its function
    for (Place place : p.variables[v].declarations) gone.push_back(place);
  };
  for (VariableIndex slot : slots) add(slot);
  for (VariableIndex v : p.types[e.type].statics) {  // a lock or a flag that served the accessor alone
    if (std::find(slots.begin(), slots.end(), v) != slots.end() || p.usesOfVariable[v].empty()) continue;
    if (std::all_of(p.usesOfVariable[v].begin(), p.usesOfVariable[v].end(), [&](uint32_t u) { return p.uses[u].in != kNone && accessPoints.count(p.uses[u].in) > 0; })) add(v);
  }
  for (Place place : gone)
    if (p.node(place).has(kInMacro)) return "a part of it is written by a macro";
  std::vector<FileEdit> cuts;
  for (Place place : gone) scan.removeDeclaration(place, cuts);
  mergeCuts(p, scan, cuts);
  takeEmptyShells(p, scan, e.type, cuts);
  mergeCuts(p, scan, cuts);
  edits.insert(edits.end(), cuts.begin(), cuts.end());
  return "";
}

}  // namespace elmcart
