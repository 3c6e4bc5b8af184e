#include "assess/at_work.h"

#include "assess/facts.h"

namespace elmcart {
namespace {

// Is the name there for a function that is not called, but kept or handed on?
bool handsOn(const LoweredFile& file, NodeId n) {
  Kind kind = file[n].kind;
  if (kind != Kind::Name && kind != Kind::Member) return false;
  if (file[n].role != Role::Callee) return file[n].role != Role::Receiver;
  return file[file.parents[n]].kind != Kind::Call;
}

bool hasLibraryBase(const Program& p, FunctionIndex f) {
  TypeIndex owner = p.functions[f].owner;
  return owner != kNone && p.types[owner].hasUnknownBase;
}

}  // namespace

std::vector<bool> functionsAtWork(const Program& p, const Threads& threads, const std::vector<bool>& testFile) {
  std::vector<bool> out(p.functions.size(), false);
  std::vector<FunctionIndex> open;
  auto add = [&](FunctionIndex f) {
    if (f == kNone || out[f]) return;
    out[f] = true;
    open.push_back(f);
  };
  for (FunctionIndex f = 0; f < p.functions.size(); ++f)
    if (isMain(p, f) || threads.sideOf(f).roots[0] != kNone || (hasLibraryBase(p, f) && p.callsOfFunction[f].empty())) add(f);
  for (const CallSite& call : p.calls)
    if (call.in == kNone && !testFile[call.place.file]) add(call.callee);
  for (FileIndex f = 0; f < p.files.size(); ++f) {
    if (testFile[f]) continue;
    for (NodeId n = 1; n < p.files[f].nodes.size(); ++n)
      if (Symbol symbol = p.links[f].symbol[n]; symbol.is(Symbol::Sort::Function) && handsOn(p.files[f], n)) add(symbol.index());
  }
  while (!open.empty()) {
    FunctionIndex f = open.back();
    open.pop_back();
    for (FunctionIndex o : threads.overridersOf(f)) add(o);
    for (uint32_t c : p.callsInFunction[f])
      if (!testFile[p.calls[c].place.file]) add(p.calls[c].callee);
  }
  return out;
}

}  // namespace elmcart
