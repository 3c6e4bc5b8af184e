// Linking by several threads: what batches add is numbered anew when they are
// merged, and whatever refers to it must follow.
#include <gtest/gtest.h>

#include <functional>
#include <string>
#include <vector>

#include "program/load.h"
#include "program/program.h"

using namespace elmcart;

namespace {

constexpr int kFunctions = 700;  // more than two batches

std::vector<LoweredFile> harbour() {
  std::string quay = "package harbour;\nimport java.util.List;\nclass Quay {\n  static Berth spare = new Berth(0);\n";
  for (int i = 0; i < kFunctions; ++i) {
    std::string n = std::to_string(i);
    quay += "  int moor" + n + "(Berth given" + n + ") {\n    List<Berth> row" + n + " = given" + n + ".neighbours();\n    Berth next" + n + " = new Berth(" + n +
            ");\n    synchronized (this) { spare = next" + n + "; }\n    return Tide" + n + ".level(row" + n + ");\n  }\n";
  }
  quay += "}\n";
  std::string berth = "package harbour;\nimport java.util.List;\nclass Berth {\n  Berth(int number) {}\n  List<Berth> neighbours() { return null; }\n}\n";
  std::string office = "class Office:\n    def __init__(self):\n        self.book = Book()\n\n\nclass Book:\n    pass\n\n\n";
  for (int i = 0; i < kFunctions; ++i) office += "def file" + std::to_string(i) + "():\n    kept = Office()\n    return kept.book\n\n\n";
  std::string cranes = "struct Crane { explicit Crane(int reach) {} };\n";
  for (int i = 0; i < kFunctions; ++i) cranes += "void lift" + std::to_string(i) + "() { Crane crane" + std::to_string(i) + "(" + std::to_string(i) + "); }\n";
  std::vector<LoweredFile> files;
  files.push_back(lowerText("harbour/Berth.java", berth));
  files.push_back(lowerText("harbour/Quay.java", quay));
  files.push_back(lowerText("office.py", office));
  files.push_back(lowerText("cranes.cpp", cranes));
  return files;
}

FunctionIndex functionNamed(const Program& p, const std::string& name) {
  for (FunctionIndex i = 0; i < p.functions.size(); ++i)
    if (p.text(p.functions[i].name) == name) return i;
  return kNone;
}

// Everything that a number stands for, told by names.
std::string told(const Program& p) {
  std::string out;
  auto add = [&](auto text) { out.append(std::string(text)).append(" "); };
  for (const Variable& v : p.variables) {
    add(p.text(v.qualified)), add(p.typeText(v.type)), add(std::to_string(v.declarations.front().node));
    add(v.function == kNone ? "-" : p.text(p.functions[v.function].name));
  }
  for (const Function& f : p.functions) {
    add(p.text(f.qualified)), add(p.typeText(f.result));
    for (VariableIndex parameter : f.parameters) add(p.text(p.variables[parameter].name));
  }
  for (const CallSite& call : p.calls) add(p.text(p.functions[call.callee].qualified)), add(std::to_string(call.place.node));
  for (const ForeignCall& call : p.foreignCalls) add(p.text(call.name)), add(std::to_string(call.place.node));
  for (const Creation& made : p.creations) add(p.text(p.types[made.type].name)), add(made.asVariable == kNone ? "-" : p.text(p.variables[made.asVariable].name));
  for (const Use& use : p.uses) add(p.text(p.variables[use.variable].name)), add(std::to_string(use.place.node));
  for (FileIndex f = 0; f < p.files.size(); ++f)
    for (NodeId n = 0; n < p.files[f].nodes.size(); ++n) {
      Symbol symbol = p.links[f].symbol[n];
      if (symbol.is(Symbol::Sort::Variable)) add(p.text(p.variables[symbol.index()].name));
      if (p.links[f].type[n]) add(p.typeText(p.links[f].type[n]));
    }
  return out;
}

}  // namespace

TEST(Link, RenumbersWhatBatchesAdd) {
  Program p = link("", harbour(), 2);
  VariableIndex lock = kNone;
  for (int i = 0; i < kFunctions; ++i) {
    std::string n = std::to_string(i);
    FunctionIndex f = functionNamed(p, "moor" + n);
    ASSERT_NE(f, kNone);
    ASSERT_EQ(p.functions[f].parameters.size(), 1u);
    const Variable& given = p.variables[p.functions[f].parameters[0]];
    EXPECT_EQ(p.text(given.name), "given" + n);
    EXPECT_EQ(given.function, f);
    ASSERT_NE(p.use(given.type).decl, kNone);
    EXPECT_EQ(p.text(p.types[p.use(given.type).decl].name), "Berth");
    int locals = 0;
    for (VariableIndex v = 0; v < p.variables.size(); ++v) {
      const Variable& local = p.variables[v];
      if (local.function != f || local.storage != Storage::Local) continue;
      ++locals;
      EXPECT_EQ(p.symbolAt(local.definition), Symbol(Symbol::Sort::Variable, v));
      const TypeUse& type = p.use(local.type);
      if (p.text(local.name) == "row" + n) {
        EXPECT_EQ(p.text(type.name), "java::util::List");
        ASSERT_NE(p.use(p.argument(type, 0)).decl, kNone);
        EXPECT_EQ(p.text(p.types[p.use(p.argument(type, 0)).decl].name), "Berth");
      } else {
        EXPECT_EQ(p.text(local.name), "next" + n);
        ASSERT_NE(p.use(local.type).decl, kNone);
        EXPECT_EQ(p.text(p.types[p.use(local.type).decl].name), "Berth");
      }
      EXPECT_EQ(p.usesOfVariable[v].size(), 1u) << p.text(local.name);
    }
    EXPECT_EQ(locals, 2);
    ASSERT_EQ(p.foreignCallsInFunction[f].size(), 1u);
    EXPECT_EQ(p.text(p.foreignCalls[p.foreignCallsInFunction[f][0]].name), "Tide" + n + "::level");
    // All lock the same: the object that each is called on.
    for (NodeId c = p.functions[f].definition.node; c < p.files[1].nodes.size() && p.files[1][c].role != Role::Lock; ++c)
      if (p.files[1][c + 1].role == Role::Lock) {
        Symbol locked = p.links[1].symbol[c + 1];
        ASSERT_TRUE(locked.is(Symbol::Sort::Variable));
        if (lock == kNone) lock = locked.index();
        EXPECT_EQ(locked.index(), lock);
      }
    // Where the object is the variable's own.
    FunctionIndex lifting = functionNamed(p, "lift" + n);
    ASSERT_NE(lifting, kNone);
    ASSERT_EQ(p.creationsInFunction[lifting].size(), 1u);
    VariableIndex crane = p.creations[p.creationsInFunction[lifting][0]].asVariable;
    ASSERT_NE(crane, kNone);
    EXPECT_EQ(p.text(p.variables[crane].name), "crane" + n);
    // Where assignments tell the type.
    FunctionIndex filing = functionNamed(p, "file" + n);
    ASSERT_NE(filing, kNone);
    ASSERT_NE(p.use(p.functions[filing].result).decl, kNone);
    EXPECT_EQ(p.text(p.types[p.use(p.functions[filing].result).decl].name), "Book");
  }
}

TEST(Link, SaysTheSameForAnyNumberOfThreads) {
  std::string one = told(link("", harbour(), 1));
  for (unsigned jobs : {2u, 8u}) EXPECT_EQ(told(link("", harbour(), jobs)), one);
}

// Several folders bear the last part of what is imported: the one that has most of the rest of it is meant.
TEST(Link, AnImportLeadsToTheFolderWithMostOfItsName) {
  std::vector<LoweredFile> files;
  files.push_back(lowerText("harbour/cmd/main.go", "package main\nimport \"example.org/harbour/lib/harbour\"\nfunc main() {\n\tbook := harbour.New()\n\tbook.Note()\n}\n"));
  files.push_back(lowerText("harbour/lib/harbour/book.go", "package harbour\ntype Book struct{}\nfunc New() *Book { return &Book{} }\nfunc (b *Book) Note() {}\n"));
  Program p = link("", std::move(files), 1);
  FunctionIndex note = functionNamed(p, "Note");
  ASSERT_NE(note, kNone);
  EXPECT_EQ(p.callsOfFunction[note].size(), 1u);
}

// Results with names are the function's own; what a test declares is seen by tests only.
TEST(Link, GoResultsAndTestFiles) {
  std::vector<LoweredFile> files;
  files.push_back(lowerText("label.go", "package harbour\nfunc next(s string) (i int, end bool) {\n\ti = len(s)\n\treturn\n}\nfunc last() { rest = 2 }\n"));
  files.push_back(lowerText("label_test.go", "package harbour\nvar i = 1\nvar rest = 1\nfunc check() { rest = 3 }\n"));
  Program p = link("", std::move(files), 1);
  for (const Variable& v : p.variables) {
    if (v.storage != Storage::Global) continue;
    VariableIndex index = static_cast<VariableIndex>(&v - p.variables.data());
    size_t outside = 0;
    for (uint32_t u : p.usesOfVariable[index]) outside += p.uses[u].in != kNone;
    EXPECT_EQ(outside, p.text(v.name) == "rest" ? 1u : 0u) << p.text(v.name);
  }
  EXPECT_EQ(p.variables.size(), 5u);  // the two globals, the parameter, the two results
}
