// Which of several functions of one name a call means.
#pragma once

#include <vector>

#include "program/linker.h"

namespace elmcart {

class Overloads {
 public:
  Overloads(const Linker& linker, const Batch& batch, FileIndex f);

  // How well arguments of these types go with a function's parameters; below zero: not at all.
  // A type of 0 is one that could not be told (a number, say).
  int fit(FunctionIndex function, const std::vector<TypeUseId>& arguments) const;
  // How well literals among the arguments of a call or creation go with the parameters that take them: below 0 where one cannot.
  int fitOfLiterals(FunctionIndex function, NodeId call) const;
  // The first of the list that takes so many arguments, or else the first function in it.
  FunctionIndex byCount(const Symbols& list, size_t arguments) const;
  // The same of all functions that bear the name of `first`, where it stands.
  FunctionIndex named(Symbol first, size_t arguments) const;
  // Of the functions that bear the name of `chosen`, the one whose parameters go best with these.
  FunctionIndex byTypes(FunctionIndex chosen, const std::vector<TypeUseId>& types) const;

 private:
  bool isBaseByName(TypeIndex type, NameId name) const;

  const Linker& k_;
  const Program& p_;
  const Batch& b_;
  FileIndex f_;
};

}  // namespace elmcart
