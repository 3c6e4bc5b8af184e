// What running some code reaches, through calls inside the program: the
// creation graph. Each answer bears the chain of places that leads to it.
#pragma once

#include <functional>
#include <set>
#include <string>
#include <vector>
#include <absl/container/flat_hash_map.h>

#include "assess/finding.h"
#include "program/program.h"

namespace elmcart {

// One thing reached: a variable that is used, a function that is called, or a
// call of something outside of the tree.
struct Reached {
  VariableIndex variable = kNone;
  FunctionIndex function = kNone;
  const ForeignCall* foreign = nullptr;
  std::vector<Evidence> chain;
};

struct Wanted {
  std::function<bool(VariableIndex)> variable = nullptr;
  std::function<bool(FunctionIndex)> function = nullptr;  // calls of it are told and not followed
  uint32_t foreign = 0;                                     // traits of the foreign calls that are told
};

class Reaching {
 public:
  explicit Reaching(const Program& program);

  // What giving `v` its first value outside of functions reaches; `name` is what it is called in the chain.
  std::vector<Reached> fromInitialiser(VariableIndex v, const std::string& name, const Wanted& wanted) const;
  // What running the function reaches.
  std::vector<Reached> fromFunction(FunctionIndex f, const Wanted& wanted) const;
  // What creating the entity's instance reaches: its arguments, its constructor, its fields.
  std::vector<Reached> fromCreation(const Entity& entity, const Wanted& wanted) const;

 private:
  struct Walk {
    const Wanted& wanted;
    std::set<FunctionIndex> seen;
    std::vector<Reached> out;
  };
  using Chain = std::vector<Evidence>;

  void initialiser(VariableIndex v, const std::string& name, const Chain& chain, int depth, Walk& walk) const;
  void fields(TypeIndex type, const Chain& chain, int depth, Walk& walk) const;
  void function(FunctionIndex f, const Chain& chain, int depth, Walk& walk) const;
  void foreign(const ForeignCall& site, const std::string& who, const Chain& chain, Walk& walk) const;
  void call(const CallSite& site, const std::string& who, const Chain& chain, int depth, Walk& walk) const;

  const Program& p_;
  absl::flat_hash_map<VariableIndex, std::vector<const Use*>> uses_;
  absl::flat_hash_map<VariableIndex, std::vector<const CallSite*>> calls_;
  absl::flat_hash_map<VariableIndex, std::vector<const ForeignCall*>> foreign_;
};

}  // namespace elmcart
