// Facts that several families of checks ask for.
#pragma once

#include <map>

#include "assess/assess.h"
#include "base/text.h"
#include "program/arguments.h"

namespace elmcart {

// Calls `each` with every node inside `root`, in the order of the text.
template <typename Each>
void forEachNode(const LoweredFile& file, NodeId root, Each each) {
  for (NodeId n = root + 1; n < file.nodes.size() && file[n].span.begin < file[root].span.end; ++n) each(n);
}
// Is there a node inside `root` of which `test` is true?
template <typename Test>
bool anyNode(const LoweredFile& file, NodeId root, Test test) {
  for (NodeId n = root + 1; n < file.nodes.size() && file[n].span.begin < file[root].span.end; ++n)
    if (test(n)) return true;
  return false;
}

// Does anything inside `root`, itself left out, stand for the variable?
bool namesInside(const Program& p, Place root, VariableIndex v);
// Does that very node, but for & and *, stand for the variable? Not where there is none.
bool standsFor(const Program& p, Place place, VariableIndex v);
// Does the nearest branch around a place ask for the variable in its condition?
bool branchAsksFor(const Program& p, Place place, VariableIndex v);
// What the variable is given where it is defined; not known where that is nothing.
Place initialiserOf(const Program& p, VariableIndex v);
// The list that `list[] = value` adds to at its end; kNoNode for all else.
NodeId appendedTo(const LoweredFile& file, NodeId assignment);
// The creation that stands there, with its constructor where that is known; null: none does.
const Creation* creationAt(const Program& p, Place place);
// The parameter that an argument of a call or creation is given to; kNone: it is none of this tree's.
VariableIndex parameterGiven(const Program& p, Place call, NodeId argument);
// Is it the function that a program begins with?
bool isMain(const Program& p, FunctionIndex f);
// Does its end mean the end of the program: main, or what main (or such a function) calls and does nothing after?
bool endsWithProgram(const Program& p, FunctionIndex f, int depth = 0);
// Does it, on some way to it, where its other callers may be no part of the program that is built here?
bool mayEndWithProgram(const Program& p, FunctionIndex f, int depth = 0);
// The class around a consumer, or what stands in for one, by name.
std::string unitText(const Subject& s, const Consumer& c);
// The class whose code a consumer stands in: a function's, or that of a field whose first value it is part of; kNone: a file's own.
TypeIndex classReaching(const Program& program, const Consumer& consumer);
// Does the place stand in the entity's own class, or in one that is written inside of it?
bool isInOwnClass(const Program& program, const Entity& entity, Place place);
// A part of an entity's state in a message: "load of CargoScale", or the entity's name where it has no parts.
std::string partText(const Entity& e, const std::string& part);
// What is done to a collection at a use of it, by the member function that is called there or how else it is written.
CollectionAct actAt(const Program& p, Place place);
// Is it only ever set as a whole, behind a test of whether it is there, to a number, a text or a collection that is
// complete by then and not changed later, worked out from what is not handed in? Who sets it twice sets the same.
bool isWorkedOut(const Program& p, VariableIndex v);
// Is it declared so that all threads see at once what is put there, in a language that promises it?
bool publishesAtOnce(const Program& p, VariableIndex v);
// A table in which each function that puts something looks first, and puts what it has worked out itself and what stays so: who asks
// twice is told the same.
bool isMemo(const Program& p, VariableIndex v);
// Does the collection hold its elements, or their keys, without keeping them alive?
bool keepsWeakly(const Program& p, VariableIndex collection);
// Is it given there, behind a test of whether it has a value, what another part keeps under a name or a class: GetService(typeof(X))?
// Who comes twice gets the same.
bool putsLookedUp(const Program& p, const Use& use);
// Is it only changed by the functions that make it where it is found empty, so that it is complete when others see it?
bool isFilledWhereMade(const Program& p, VariableIndex v);
// Is the variable named in the expression, or is it the expression?
bool readsInside(const Program& p, Place root, VariableIndex variable);
// Is the collection walked over there: for x in table, for x in table.values()?
bool isWalkedOver(const Program& p, Place place);
// Does the use change what others see? What a library's object does when it is called is told for collections alone.
bool changesState(const Program& p, const Use& use);
// Is a method of that name told an object's end?
bool isEndHook(const Guarantees& g, std::string_view name);
// Is it made once and worth a word on how? What never changes once it stands
// can do no harm by being shared, but its making can.
bool isMadeOnce(const Entity& e);
// Are there threads in the entity's language that share it? Not what each of them has for itself.
bool threadsExist(const Subject& s, const Entity& e);
std::vector<FunctionIndex> accessPointFunctions(const Entity& e);
// Is it the name of a type of numbers, characters or truth values, in any of the languages?
bool namesNumber(std::string_view type);
// Does it hold a number, a text or a yes or no?
bool isPlainValue(const Program& p, VariableIndex v);
// Is it a number, as far as its type tells?
bool isArithmetic(const Program& p, VariableIndex v);
// Is it one object of a class of which there are many? What is done to a field
// of the class somewhere is then hardly done to this one.
bool oneOfMany(const Subject& s, const Entity& e);
// The same for a field of the entity's class or of a base of which there are many objects, where nobody calls on this one what changes it.
bool isOfMany(const Subject& s, const Entity& e, VariableIndex field);
// The uses of a piece of an entity's state outside of construction and tests,
// those under a lock and those under none.
struct GuardedUses {
  std::vector<const Use*> guarded, unguarded;
  bool anyChange = false, guardedChange = false;
  bool differentLocks = false;  // no lock is common to the guarded ones
  bool mixed() const;           // guarded here, and there not, or otherwise
};
GuardedUses guardedUses(const Subject& s, const Entity& e, const StateField& field);
// Does production code of the tree call it?
bool isCalled(const Subject& s, FunctionIndex f);
// Do only tests call it? Not what nobody calls, or a library may.
bool onlyTestsCall(const Subject& s, FunctionIndex f);
// Is it only called by its own class, and nobody else may?
bool staysInside(const Program& p, FunctionIndex f);
// Does it stand for a library's member, and nobody calls it by its class? When and with which locks it runs the library decides.
bool isCalledByLibrary(const Program& p, FunctionIndex f);
// Does the function only run while an object, class or file comes into being or goes?
bool isConstruction(const Program& p, FunctionIndex f, int depth = 0);
// Is a field touched there while its object is made: by its constructor, or by who has just made it?
bool isConstruction(const Program& p, const Use& use);
// slot = this: is the object of the function put there?
bool putsItself(const Program& p, const Use& use);

// Is what was caught handed to what is called there? `call`: in the handler.
bool tellsError(const Program& p, Place handler, NodeId call);

// One cause is told once: what else it holds for is named with the first finding.
class OfOneCause {
 public:
  explicit OfOneCause(std::vector<Finding>& out) : out_(out) {}

  // Is there a finding with that cause already? Then this place is added to it; otherwise the caller adds the first one next.
  bool holdsFor(Place cause, Place made) {
    auto [entry, fresh] = first_.emplace(std::make_pair(cause.file, cause.node), std::make_pair(out_.size(), size_t{0}));
    if (fresh) return false;
    auto& [index, more] = entry->second;
    ++more;
    if (out_[index].evidence.size() < 10) out_[index].evidence.push_back({made, "the same holds for what is made here"});
    return true;
  }

  void tellCounts() {
    for (const auto& [cause, told] : first_)
      if (told.second > 0) {
        out_[told.first].message.pop_back();
        out_[told.first].message += "; so it is with " + counted(told.second, "more object.", "more objects.");
      }
  }

 private:
  std::vector<Finding>& out_;
  std::map<std::pair<FileIndex, NodeId>, std::pair<size_t, size_t>> first_;  // by cause: the finding, and how many more
};

}  // namespace elmcart
