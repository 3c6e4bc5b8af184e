// Writes changes in languages whose arguments may be given by name: a constructor takes the object as one more
// parameter that may be left out, and who hands it in says its name.
#pragma once

#include "languages/writer.h"

namespace elmcart {

class LabelWriter : public Writer {
 public:
  using Writer::Writer;

  std::string wordFor(std::string_view name) const override { return objectWord(name, false); }
  bool hands(Spot creation) override;

 protected:
  std::string canTake(const Change& change) override;
  std::string canHandOn(const Change& change) override;
  std::string canHandToBase(const Change& change) override;
  std::string canOpen(const Change&) override { return ""; }
  std::string canTakeInFunction(const Change& change) override;
  std::string read(const Change& change) override;
  std::string handOn(const Change& change) override;
  std::string handToBase(const Change& change) override;

  // ----- what a language says itself

  virtual TSNode constructorAt(Spot spot) = 0;
  virtual TSNode classAt(Spot spot) = 0;
  virtual TSNode functionAt(Spot spot) = 0;
  virtual std::string whyNotInFunction(Spot function, TSNode node) = 0;
  // The brackets with what a creation or a call of another constructor is given; null: it has none.
  virtual TSNode argumentsOf(Spot call) = 0;
  // The same of the call by which a constructor, or a class without one, makes its base; null: there is none.
  virtual TSNode baseArgumentsOf(const Change& change) = 0;
  virtual std::string whyNotTaken(const Change& change, TSNode constructor) = 0;
  virtual std::string whyNotGiven(Spot) { return ""; }
  // What stands between a name and what is given by it, and between what may be nothing and what stands for it then.
  virtual std::string_view label() const = 0;
  virtual std::string_view orElse() const = 0;
  // What a member calls the field.
  virtual std::string fieldIn(const LoweredFile&) { return handed_.word; }
  // May the parameter be nothing, where what is kept may not?
  virtual bool parameterMayBeNone() const { return handed_.late; }

  // ----- shared readings

  static constexpr std::string_view kNoClass = " is no ordinary class: nothing can be handed to a constructor of it";
  std::string given(const std::string& object) const { return handed_.word + std::string(label()) + object; }
  std::string orFetched(const std::string& variable, const std::string& fetch) const { return variable + std::string(orElse()) + fetch; }
  std::string objectAt(const Change& change);
  // As the first statements of a body in braces, behind a remark.
  void putFirst(const LoweredFile& file, TSNode around, TSNode body, const std::vector<std::string>& statements);
};

}  // namespace elmcart
