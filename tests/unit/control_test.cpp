// Where control goes in a function: what its statements let run, and which tests were made before a place is reached.
#include <gtest/gtest.h>

#include <string>
#include <vector>

#include "flow/control.h"
#include "program/load.h"
#include "program/program.h"

using namespace elmcart;

namespace {

Program programOfText(const char* file, const std::string& source) {
  Linking linking(".", 1, 0, 1);
  linking.add(lowerText(file, source));
  return linking.finish();
}

FunctionIndex functionNamed(const Program& p, std::string_view name) {
  for (FunctionIndex i = 0; i < p.functions.size(); ++i)
    if (p.text(p.functions[i].name) == name) return i;
  return kNone;
}

// ----- is the end of f reached?

struct EndCase {
  const char* name;
  const char* file;
  const char* source;
  Answer reached;
};

class End : public testing::TestWithParam<EndCase> {};

TEST_P(End, AsStated) {
  Program p = programOfText(GetParam().file, GetParam().source);
  FunctionIndex f = functionNamed(p, "f");
  ASSERT_NE(f, kNone);
  EXPECT_EQ(static_cast<int>(reachesEnd(p, f)), static_cast<int>(GetParam().reached));
}

const EndCase kEnds[] = {
    {"NoReturn", "a.py", "def f():\n    g()\n", Answer::Yes},
    {"Returns", "a.py", "def f():\n    return 1\n", Answer::No},
    {"ReturnsOnOneSide", "a.py", "def f(a):\n    if a:\n        return 1\n", Answer::Yes},
    {"ReturnsOnBothSides", "a.py", "def f(a):\n    if a:\n        return 1\n    else:\n        return 2\n", Answer::No},
    {"ThirdSideFallsOff", "a.py", "def f(a):\n    if a:\n        return 1\n    elif g():\n        h()\n    else:\n        return 2\n", Answer::Yes},
    {"Raises", "a.py", "def f(a):\n    if a:\n        return 1\n    raise ValueError(a)\n", Answer::No},
    {"LoopMayNotRun", "a.py", "def f(all):\n    for a in all:\n        return a\n", Answer::Yes},
    {"RunsForEver", "A.java", "class A { int f() { for (;;) { g(); } } }", Answer::No},
    {"LeavesALoopByAJump", "A.java", "class A { void f() { for (;;) { if (g()) break; } } }", Answer::NotKnown},
    {"OnceThrough", "a.cpp", "int f(int a) { do { return a; } while (false); }", Answer::No},
    {"LockAround", "A.java", "class A { int n; int f() { synchronized (this) { return n; } } }", Answer::No},
    {"HandlerFallsOff", "a.py", "def f():\n    try:\n        return g()\n    except ValueError:\n        h()\n", Answer::Yes},
    {"HandlerReturns", "a.py", "def f():\n    try:\n        return g()\n    except ValueError:\n        return 0\n", Answer::No},
    {"FinallyReturns", "a.js", "function f() { try { g(); } finally { return 1; } }", Answer::No},
    {"Switch", "a.js", "function f(a) { switch (a) { case 1: return 1; default: return 2; } }", Answer::NotKnown},
    {"SwitchThatOnlyActs", "a.js", "function f(a) { switch (a) { case 1: g(); break; default: h(); } }", Answer::Yes},
    {"EndsTheProgram", "a.go", "package a\n\nfunc f() int {\n\tpanic(\"no berth\")\n}\n", Answer::No},
    {"Asserts", "a.cpp", "#include <cassert>\nint f(int a) { assert(a > 0); }", Answer::NotKnown},
    {"ReturnOfALambda", "a.js", "function f(list) { list.forEach(a => { return a; }); }", Answer::Yes},
    {"NoBody", "a.cpp", "int f(int a);", Answer::NotKnown},
    {"PhpFallsOff", "a.php", "<?php\nfunction f($a) { if ($a) { return 1; } }\n", Answer::Yes},
    {"RubbishAfterReturn", "a.js", "function f() { return 1; g(); }", Answer::No},
};

INSTANTIATE_TEST_SUITE_P(Control, End, testing::ValuesIn(kEnds), [](const testing::TestParamInfo<EndCase>& info) { return info.param.name; });

// ----- what is known where mark() is called, from the inside out

struct KnownCase {
  const char* name;
  const char* file;
  const char* source;
  const char* known;  // + holds, - does not; in brackets: left before
};

class KnownAt : public testing::TestWithParam<KnownCase> {};

TEST_P(KnownAt, AsStated) {
  Program p = programOfText(GetParam().file, GetParam().source);
  std::string told;
  const LoweredFile& file = p.files[0];
  for (NodeId n = 1; n < file.nodes.size(); ++n) {
    NodeId callee = file[n].kind == Kind::Call ? file.child(n, Role::Callee) : kNoNode;
    if (callee == kNoNode || file.name(callee) != "mark") continue;
    forEachKnown(p, {0, n}, [&](const Known& test) {
      std::string sign = test.holds ? "+" : "-";
      told += test.around ? sign : "(" + sign + ")";
      return false;
    });
  }
  EXPECT_EQ(told, GetParam().known);
}

const KnownCase kKnown[] = {
    {"Nothing", "a.py", "def f():\n    mark()\n", ""},
    {"Inside", "a.py", "def f(a):\n    if a:\n        mark()\n", "+"},
    {"OtherSide", "a.py", "def f(a):\n    if a:\n        g()\n    else:\n        mark()\n", "-"},
    {"InTheCondition", "a.py", "def f(a):\n    if mark():\n        g()\n", ""},
    {"Nested", "a.py", "def f(a, b):\n    if a:\n        if b:\n            g()\n        else:\n            mark()\n", "-+"},
    {"AfterOneThatReturns", "a.py", "def f(a):\n    if a:\n        return 1\n    mark()\n", "(-)"},
    {"AfterOneThatReturnsElse", "a.js", "function f(a) { if (a) { g(); } else { return; } mark(); }", "(+)"},
    {"AfterOneThatGoesOn", "a.py", "def f(a):\n    if a:\n        g()\n    mark()\n", ""},
    {"AfterOneThatMayReturn", "a.py", "def f(a, b):\n    if a:\n        if b:\n            return 1\n    mark()\n", ""},
    {"AfterOneThatSkipsTheTurn", "a.py", "def f(all):\n    for a in all:\n        if a:\n            continue\n        mark()\n", "(-)"},
    {"AfterOneThatThrows", "A.java", "class A { void f(Object a) { if (a == null) throw new Error(); mark(); } }", "(-)"},
    {"WhileItHolds", "a.js", "function f(a) { while (a()) { mark(); } }", "+"},
    {"ValueOfAConditional", "a.js", "function f(a) { return a ? mark() : 0; }", "+"},
    {"NotThroughAFunction", "a.js", "function f(a) { if (a) { g(() => { mark(); }); } }", ""},
    {"InsideALock", "A.java", "class A { void f(Object a) { if (a == null) return; synchronized (this) { mark(); } } }", "(-)"},
    {"BothSidesLeave", "a.js", "function f(a) { if (a) return 1; else return 2; mark(); }", ""},
};

INSTANTIATE_TEST_SUITE_P(Control, KnownAt, testing::ValuesIn(kKnown), [](const testing::TestParamInfo<KnownCase>& info) { return info.param.name; });

// ----- does control go from one call to another that stands further down?

struct GoesCase {
  const char* name;
  const char* file;
  const char* source;  // from `from()` to `to()`
  Answer goes;
};

class Goes : public testing::TestWithParam<GoesCase> {};

TEST_P(Goes, AsStated) {
  Program p = programOfText(GetParam().file, GetParam().source);
  auto callOf = [&](std::string_view name) {
    Place out;
    for (const ForeignCall& call : p.foreignCalls)
      if (p.text(call.name) == name) out = call.place;
    return out;
  };
  Place from = callOf("from"), to = callOf("to");
  ASSERT_TRUE(from.known() && to.known());
  EXPECT_EQ(static_cast<int>(goesOn(p, from, to)), static_cast<int>(GetParam().goes));
}

const GoesCase kGoes[] = {
    {"StraightOn", "a.js", "function f() { from(); to(); }", Answer::Yes},
    {"OutOfABranch", "a.js", "function f(a) { if (a) { from(); } to(); }", Answer::Yes},
    {"BranchReturns", "a.js", "function f(a) { if (a) { from(); return; } to(); }", Answer::No},
    {"BranchReturnsWhatItCalls", "a.js", "function f(a) { if (a) return from(); to(); }", Answer::No},
    {"OneWayReturns", "a.js", "function f(a, b) { if (a) { from(); if (b) return; } to(); }", Answer::Yes},
    {"OtherBranch", "a.js", "function f(a) { if (a) { from(); } else { to(); } }", Answer::No},
    {"OutOfTheCondition", "a.js", "function f() { if (from()) { to(); } }", Answer::Yes},
    {"OtherFunction", "a.js", "function f() { const g = () => { from(); }; to(g); }", Answer::No},
    {"NextTurn", "a.js", "function f(all) { for (const a of all) { if (a) { from(); continue; } to(); } }", Answer::No},
    {"BehindTheLoop", "a.js", "function f(all) { for (const a of all) { if (a) { from(); break; } } to(); }", Answer::NotKnown},
};

INSTANTIATE_TEST_SUITE_P(Control, Goes, testing::ValuesIn(kGoes), [](const testing::TestParamInfo<GoesCase>& info) { return info.param.name; });

}  // namespace
