// What the whole of a file says of its names, read before anything in it is lowered.
#pragma once

#include <map>
#include <set>
#include <string>

#include "languages/shared/module_scope.h"

namespace elmcart::script {

class OutlinedScript : public ModuleLowerer {
 protected:
  using ModuleLowerer::ModuleLowerer;

  // A class that is written as a function (20.2.4.3): Widget.prototype.draw = function () { … };
  struct Prototype {
    std::vector<std::pair<std::string, TSNode>> members;  // with their values
    std::string base;
  };

  void outline(TSNode root);
  void fieldsOf(TSNode node, bool inStatic, const std::string& cls, std::map<std::string, Span>& out, int depth);

  std::set<std::string> classNames_;
  std::map<std::string, Prototype> prototypes_;  // by the function's name
  std::set<std::string> newed_;                  // what `new` is written before
  std::map<std::string, int> assigned_;          // names that the file assigns to, and how often
  std::set<std::string> grown_;                  // objects that statements give functions
  std::set<std::string> indexed_;                // objects that are given entries by index
  std::map<std::string, std::set<std::string>> toplevelMembers_;  // what statements give an object, by its name
  std::map<std::string, std::map<std::string, Span>> statics_;  // class-level fields that statements make, by class

 private:
  void classNames(TSNode node, int depth, bool top);
  bool isPassedByLoading(TSNode node) const;
  void prototypesIn(TSNode assignment, bool top);
  void prototypesByCall(TSNode call);
  void takeMembers(Prototype& prototype, TSNode object);
  void staticsIn(TSNode node, int depth, bool inClass);
};

}  // namespace elmcart::script
