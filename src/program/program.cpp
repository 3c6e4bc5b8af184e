#include "program/program.h"

#include <algorithm>

#include "base/parallel.h"
#include "base/text.h"
#include "lowered/notes.h"

namespace elmcart {

void Program::forEachFile(unsigned jobs, const std::function<void(FileIndex)>& work) const {
  std::vector<size_t> sizes;
  for (const LoweredFile& file : files) sizes.push_back(file.nodes.size());
  forEachLargestFirst(sizes, jobs, [&](size_t f) { work(static_cast<FileIndex>(f)); });
}

Place Program::around(Place place, Kind kind) const {
  const LoweredFile& file = files[place.file];
  for (NodeId up = file.parents[place.node]; up != kNoNode; up = file.parents[up]) {
    Kind here = file[up].kind;
    if (here == kind) return {place.file, up};
    if (here == Kind::Function && kind != Kind::Function) break;
  }
  return {place.file, kNoNode};
}

bool Program::isInside(Place inner, NodeId outer) const {
  for (NodeId up = inner.node; up != kNoNode; up = files[inner.file].parents[up])
    if (up == outer) return true;
  return false;
}

bool Program::isHeader(FileIndex f) const {
  const std::string& path = files[f].path;
  size_t dot = path.rfind('.'), slash = path.rfind('/');
  // One without extension can only be there to be included.
  if (dot == std::string::npos || (slash != std::string::npos && dot < slash)) return !languageOf[f]->headerExtensions.empty();
  std::string extension = lowerCase(std::string_view(path).substr(dot));
  const auto& headers = languageOf[f]->headerExtensions;
  return std::find(headers.begin(), headers.end(), extension) != headers.end();
}

uint32_t Program::traits(FileIndex f, TypeUseId id) const {
  const TypeUse& u = typeUses[id];
  if (u.name == 0) return 0;
  const Guarantees& g = guarantees(f);
  if (u.decl == kNone) {
    uint32_t own = g.typeTraits(names.text(u.name));
    // A reference to what holds a value for each thread is as good as that.
    return (own & kPointerLike) && u.argumentCount > 0 && !(own & kPerThread) ? own | (traits(f, argument(u, 0)) & kPerThread) : own;
  }
  // A class that is only named in the tree may be the library's, and a tree may hold the library itself.
  const TypeDecl& decl = types[u.decl];
  bool librarys = !decl.definition.known() || (!g.ownNames.empty() && names.text(decl.qualified).starts_with(g.ownNames));
  if (librarys) return g.typeTraits(names.text(decl.name));
  uint32_t inherited = 0;
  if (decl.hasUnknownBase)
    for (const Base& base : decl.bases) inherited |= base.type == kNone ? g.typeTraits(names.text(typeUses[base.use].name)) & kPerThread : 0;
  return inherited;
}

TypeIndex Program::classBehind(FileIndex f, TypeUseId id) const {
  for (int i = 0; i < 6 && id != 0; ++i) {
    const TypeUse& u = typeUses[id];
    // A plain enumerator, held by value, is no object.
    bool number = u.decl != kNone && types[u.decl].form == TypeForm::Enum && !u.has(kPointer) && types[u.decl].methods.empty();
    if (u.decl != kNone) return number ? kNone : u.decl;
    uint32_t t = traits(f, id);
    if (!(t & (kPointerLike | kAtomicType))) return kNone;
    id = argument(u, 0);
  }
  return kNone;
}

std::string Program::typeText(TypeUseId id) const {
  if (id == 0) return "";
  const TypeUse& u = typeUses[id];
  std::string out;
  if (u.has(kPointeeConst) || u.has(kConst)) out += "const ";
  out += u.decl != kNone ? names.text(types[u.decl].qualified) : names.text(u.name);
  if (u.argumentCount > 0) {
    out += "<";
    for (uint32_t i = 0; i < u.argumentCount; ++i) {
      if (i) out += ", ";
      out += typeText(argument(u, i));
    }
    out += ">";
  }
  if (u.has(kPointer) && !u.has(kRvalue)) out += "*";
  if (u.has(kReference)) out += "&";
  if (u.has(kArray)) out += "[]";
  return out;
}

bool Program::derivesFrom(TypeIndex derivedType, TypeIndex base) const {
  return anyBase(derivedType, [&](TypeIndex at, const Base*) { return at == base; });
}

// C++20 [class.copy.ctor]/6, [class.copy.ctor]/10: implicitly declared unless
// declared; deleted when a move is declared, or a base or member cannot be copied.
bool Program::isCopyable(TypeIndex type, FileIndex f) const {
  std::vector<TypeIndex> asked;
  return isCopyable(type, f, asked);
}

// What was asked before was copyable, or is about to be told by who asked first.
bool Program::isCopyable(TypeIndex type, FileIndex f, std::vector<TypeIndex>& asked) const {
  if (asked.size() >= kMostRelatives || std::find(asked.begin(), asked.end(), type) != asked.end()) return true;
  asked.push_back(type);
  if (!guarantees(f).implicitCopy.holds) return false;
  const TypeDecl& decl = types[type];
  bool declared = false, open = true, moves = false;
  for (FunctionIndex m : decl.methods) {
    const Function& fn = functions[m];
    bool assignment = text(fn.name) == "operator=";
    // With what has defaults behind it, too ([class.copy.ctor]/1).
    if (fn.parameters.empty() || fn.leastArguments > 1 || (fn.parameters.size() > 1 && assignment) || (fn.form != FunctionForm::Constructor && !assignment)) continue;
    const TypeUse& u = use(variables[fn.parameters[0]].type);
    if (u.decl != type || u.has(kPointer)) continue;
    if (u.has(kRvalue)) {
      moves = true;
      continue;
    }
    if (assignment) continue;
    declared = true;
    open = !(fn.modifiers & (kDeleted | kPrivate | kProtected));
  }
  if (declared) return open;
  if (moves) return false;
  for (const Base& base : decl.bases) {
    if (base.type != kNone) {
      if (!isCopyable(base.type, f, asked)) return false;
    } else {
      // A base from elsewhere whose very name says so.
      std::string name = lowerCase(names.text(use(base.use).name));
      if (name.find("noncopyable") != std::string::npos || name.find("disablecopy") != std::string::npos) return false;
    }
  }
  for (VariableIndex v : decl.fields) {
    const TypeUse& u = use(variables[v].type);
    if (u.has(kPointer)) continue;
    if (u.has(kReference)) continue;
    if (u.decl == kNone && (guarantees(f).typeTraits(names.text(u.name)) & kNonCopyable)) return false;
    if (u.decl != kNone && !isCopyable(u.decl, f, asked)) return false;
  }
  return true;
}

NodeId Program::assignedAt(Place written) const {
  const LoweredFile& tree = file(written);
  // The children of a node that have a role (any: Role::None), and which of them the place is.
  auto partsOf = [&](NodeId of, Role role) {
    std::vector<NodeId> out;
    for (NodeId n : children(tree, of))
      if (role == Role::None || tree[n].role == role) out.push_back(n);
    return out;
  };
  NodeId up = tree.parents[written.node], assign = up;
  bool apart = tree[up].kind == Kind::Collection && tree[up].role == Role::Target;
  if (apart) assign = tree.parents[up];
  if (assign == kNoNode || tree[assign].kind != Kind::Assign) return kNoNode;
  std::vector<NodeId> targets = apart ? partsOf(up, Role::None) : partsOf(assign, Role::Target), values = partsOf(assign, Role::Value);
  if (apart && values.size() == 1 && tree[values.front()].kind == Kind::Collection) values = partsOf(values.front(), Role::None);
  if (targets.size() == values.size())
    for (size_t i = 0; i < targets.size(); ++i)
      if (targets[i] == written.node) return values[i];
  return apart || values.empty() ? kNoNode : values.front();
}

bool saysOneThread(const Program& p, FunctionIndex f) {
  const Places& places = p.functions[f].declarations;
  return std::any_of(places.begin(), places.end(), [&](Place place) { return noteAbove(p.file(place), place.node, kOneThread) != nullptr; });
}

}  // namespace elmcart
