// Writes changes in languages whose constructors are told apart by what they take: the one that is there keeps its
// signature and hands on to one beside it that takes the object.
#pragma once

#include <set>

#include "languages/writer.h"

namespace elmcart {

class OverloadWriter : public Writer {
 public:
  using Writer::Writer;

  std::string wordFor(std::string_view name) const override { return objectWord(name, false); }
  bool hands(Spot creation) override;

 protected:
  bool breaksLists() const override { return true; }
  std::string canTake(const Change& change) override;
  std::string canGetConstructor(const ClassFacts& c) override;
  std::string canTakeInFunction(const Change& change) override;
  std::string takeInFunction(const Change& change) override;
  std::string canHandOn(const Change& change) override;
  std::string canHandToBase(const Change& change) override;
  std::string whyNotDropped(const Change& change) override;
  void begin(std::span<const Change> changes) override;
  std::string take(const Change& change) override;
  std::string makeConstructor(const Change& change) override;
  std::string keep(const Change& change) override;
  // What is protected a derived class names, §6.6.2 of Java's specification, §7.5.4 of C#'s.
  std::string canOpen(const Change&) override { return ""; }
  std::string open(const Change& change) override;
  std::string read(const Change& change) override;
  std::string handOn(const Change& change) override;
  std::string handToBase(const Change& change) override;
  std::string drop(const Change& change) override;

  // ----- what a language says itself

  virtual TSNode constructorAt(Spot spot) = 0;
  virtual TSNode classAt(Spot spot) = 0;
  virtual TSNode methodAt(Spot spot) = 0;
  virtual std::string whyNotInMethod(Spot method, TSNode node) = 0;
  virtual TSNode argumentsOf(Spot call) = 0;
  // What a constructor hands on to, `this` or its base: the node that has the arguments; null: nothing of that sort.
  virtual TSNode handsOn(TSNode constructor, bool toBase) = 0;
  virtual std::string whyNotTaken(const Change& change, TSNode constructor) = 0;
  virtual TSNode declaratorAt(Spot field) = 0;
  virtual TSNode valueOf(TSNode declarator) = 0;
  FirstValue firstValueOf(Spot field) override;
  std::string setIn(Spot constructor, const std::vector<std::string>& statements) override;
  std::string setting(const std::string& name, const std::string& value) override { return "this." + name + " = " + value + ";"; }
  virtual bool isPlainClass(TSNode type) = 0;
  // The constructor as it was, which hands on what it takes and fetches the object.
  virtual std::string first(const LoweredFile& file, TSNode constructor, const std::string& arguments, const std::string& indent) = 0;
  // The same for a class that has no constructor, and the one that takes the object; {statements} stand in its body.
  virtual std::string both(const ClassFacts& c, TSNode type, const std::string& fetch, bool toBase) = 0;
  // Where the statements of a body may begin to set fields; 0: it has no body of statements.
  virtual uint32_t statementsBegin(TSNode constructor) = 0;
  // What stands for parameters that are left out at a call, each with a comma behind it; a text in `reason`: why that cannot be written.
  virtual std::string leftOut(const Change&, std::string& reason) { return reason.clear(), ""; }
  virtual void prepareSecond(const LoweredFile&, TSNode) {}
  // What documents a constructor, for the one beside it, with the new parameter; empty: nothing does.
  virtual std::string documentation(const LoweredFile&, TSNode, const std::string&) { return ""; }
  virtual std::string documentedField(const LoweredFile&, TSNode, const std::string& line, const std::string&) { return line; }
  virtual std::string fieldLine(const LoweredFile& file) = 0;
  // What a member calls the field, and the member that falls back on what is fetched.
  std::string fieldIn(const LoweredFile& file) { return fieldNamed(file, handed_.word); }
  std::string assignment(const LoweredFile& file) {
    std::string field = fieldIn(file);
    return (field == handed_.word ? "this." : "") + field + " = " + handed_.word + ";";
  }
  // What is in the variable, or what is fetched where nothing is.
  virtual std::string chosen(const std::string& variable, const std::string& fetch) = 0;
  virtual std::string readerText(const LoweredFile& file) = 0;
  virtual std::string readerCall() = 0;
  virtual bool isField(TSNode member, bool ofObjects) = 0;
  virtual TSNode bodyOf(TSNode type) { return SyntaxTree::field(type, "body"); }
  // Does the constructor nothing but hand on?
  virtual bool handsOnOnly(TSNode constructor) = 0;

  // ----- shared readings

  std::vector<TSNode> parametersOf(TSNode constructor) { return SyntaxTree::children(SyntaxTree::field(constructor, "parameters")); }
  // The names in a list, each with a comma behind it.
  std::string namesIn(const LoweredFile& file, TSNode declaration);
  static std::string spacedOut(std::string_view type);

 private:
  std::string clash(const Change& change, TSNode constructor);
  void putBeside(const LoweredFile& file, TSNode declaration, const std::string& first);
  std::string putFirst(Spot constructor, const std::vector<std::string>& statements);
  std::string source(const Change& change);
  void castNulls(const Change& change, TSNode constructor);
  TSNode lastField(TSNode body);
  void addReader(const ClassFacts& c);
};

}  // namespace elmcart
