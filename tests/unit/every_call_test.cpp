// No statement or expression form of a language hides what it calls: each name before a bracket is a call in the lowered tree.
#include <gtest/gtest.h>

#include <cctype>
#include <set>
#include <string>

#include "program/load.h"

using namespace elmcart;

namespace {

struct Forms {
  const char* name;
  const char* file;
  const char* source;  // calls have names of the form c1, c2 …
};

std::set<std::string> callsWritten(const std::string& text) {
  std::set<std::string> out;
  for (size_t at = text.find('c'); at != std::string::npos; at = text.find('c', at + 1)) {
    size_t end = at + 1;
    while (end < text.size() && std::isdigit(static_cast<unsigned char>(text[end]))) ++end;
    bool begins = at == 0 || !std::isalnum(static_cast<unsigned char>(text[at - 1]));
    if (begins && end > at + 1 && end < text.size() && text[end] == '(') out.insert(text.substr(at, end - at));
  }
  return out;
}

class EveryCall : public testing::TestWithParam<Forms> {};

TEST_P(EveryCall, IsRead) {
  LoweredFile file = lowerText(GetParam().file, GetParam().source);
  EXPECT_EQ(file.unreadBytes, 0u);
  std::set<std::string> found;
  for (NodeId n = 1; n < file.nodes.size(); ++n)
    if (file[n].role == Role::Callee) found.insert(std::string(file.name(n)));
  for (const std::string& name : callsWritten(GetParam().source)) EXPECT_TRUE(found.count(name)) << name << "\n" << printTree(file);
}

const Forms kForms[] = {
    {"CppLoops", "a.cpp", "void f() { for (int i = c1(), n = c2(); c3(); c4()) c5(); do { c6(); } while (c7()); while (auto x = c8()) c9(); for (auto x : c10()) c11(); }"},
    {"CppBranches", "a.cpp", "void f() { if (auto x = c1(); c2()) c3(); else c4(); switch (auto y = c5(); y) { case 1: c6(); break; default: c7(); } try { c8(); } catch (...) { c9(); } }"},
    {"CppExpressions", "a.cpp", "int f() { auto g = [x = c1()] { return c2(); }; int a[] = {c3(), c4()}; return c5() ? c6() : c7() + -c8(); }"},
    {"CppMacros", "a.cpp", "void f() { slot = ALLOCATE(float, c1(), KIND);\n  other = ALLOCATE(int, c2(), KIND);\n\n  c3(); }"},
    {"JavaLoops", "A.java", "class A { void f() { for (Object e = c1(); c2(); c3()) { c4(); } for (int i = 0, n = c5(); i < n; i++) c6(); for (var x : c7()) c8(); do { c9(); } while (c10()); } }"},
    {"JavaBranches", "A.java", "class A { { c1(); } static { c2(); } void f() { switch (c3()) { case 1: c4(); default: c5(); } try (var r = c6()) { c7(); } catch (Error e) { c8(); } finally { c9(); } assert c10(); synchronized (c11()) { c12(); } } }"},
    {"JavaLambdas", "A.java", "class A { Runnable r = () -> c1(); Object f() { return new Object() { int x = c2(); void g() { c3(); } }; } int[] a = {c4()}; }"},
    {"CsharpLoops", "a.cs", "class A { void f() { for (int i = c1(), n = c2(); c3(); c4()) { c5(); } foreach (var x in c6()) c7(); do { c8(); } while (c9()); while (c10()) c11(); } }"},
    {"CsharpBranches", "a.cs", "class A { void f() { switch (c1()) { case 1: c2(); break; default: c3(); break; } using (var x = c4()) { c5(); } lock (c6()) c7(); try { c8(); } catch (E e) when (c9()) { c10(); } finally { c11(); } } int P { get { return c12(); } set { c13(); } } }"},
    {"CsharpFunctions", "a.cs", "class A { void f() { H h = delegate(int a) { c1(); }; H g = delegate { c2(); }; H k = x => c3(); int local() { return c4(); } g += async (y, z) => { await c5(); }; } int Q => c6(); }"},
    {"GoLoops", "a.go", "package a\nfunc f() {\n\tfor i := c1(); c2(); c3() {\n\t\tc4()\n\t}\n\tfor x := range c5() {\n\t\tc6()\n\t}\n\tif y := c7(); y {\n\t\tc8()\n\t} else {\n\t\tc9()\n\t}\n}\n"},
    {"GoBranches", "a.go", "package a\nfunc f() {\n\tswitch x := c1(); x {\n\tcase c2():\n\t\tc3()\n\t}\n\tselect {\n\tcase ch <- c4():\n\t\tc5()\n\tcase v := <-c6():\n\t\tc7(v)\n\tdefault:\n\t\tc8()\n\t}\n\tgo c9()\n\tdefer c10()\n\tg := func() { c11() }\n}\n"},
    {"PythonLoops", "a.py", "def f():\n    for a in c1():\n        c2()\n    else:\n        c3()\n    while c4():\n        c5()\n    else:\n        c6()\n    return [c7() for x in c8() if c9()]\n"},
    {"PythonBranches", "a.py", "def f(a=c1()):\n    with c2() as x, c3():\n        c4()\n    try:\n        c5()\n    except E:\n        c6()\n    else:\n        c7()\n    finally:\n        c8()\n    g = lambda: c9()\n    assert c10()\n    match c11():\n        case 1:\n            c12()\n"},
    {"PhpLoops", "a.php", "<?php\nfunction f() { for ($i = 0, $n = c1(); c2(); c3()) { c4(); } foreach (c5() as $x) { c6(); } do { c7(); } while (c8()); while (c9()) c10(); }\n"},
    {"PhpBranches", "a.php", "<?php\nfunction f() { switch (c1()) { case 1: c2(); default: c3(); } try { c4(); } catch (E $e) { c5(); } finally { c6(); } $g = function () { c7(); }; $h = fn() => c8(); $m = match (c9()) { 1 => c10(), default => c11() }; return [c12() => c13()]; }\n"},
    {"JavascriptLoops", "a.js", "function f() { for (let i = c1(), n = c2(); c3(); c4()) { c5(); } for (const x of c6()) c7(); for (const k in c8()) c9(); do { c10(); } while (c11()); outer: while (c12()) c13(); }"},
    {"JavascriptBranches", "a.js", "function f() { switch (c1()) { case c2(): c3(); default: c4(); } try { c5(); } catch (e) { c6(); } finally { c7(); } const { a = c8() } = c9(); return `${c10()}` + c11()?.x ?? c12(); }"},
    {"JavascriptPrototypes", "a.js", "var Book = exports.Book = function Book() { c1(); };\nBook.prototype.open = function () { c2(); };\nBook.prototype.close = function () { c3(); };\n"},
    {"TypescriptClass", "a.ts", "class A { x = c1(); static y = c2(); constructor(private z = c3()) { c4(); } get p() { return c5(); } async *g() { for await (const q of c6()) yield c7(); } }\nenum E { A = c8() }\n"},
    {"KotlinLoops", "a.kt", "fun f() {\n  for (i in c1()) { c2() }\n  do { c3() } while (c4())\n  while (c5()) c6()\n  when (c7()) {\n    c8() -> c9()\n    else -> c10()\n  }\n  try { c11() } catch (e: E) { c12() } finally { c13() }\n}\n"},
    {"KotlinClass", "a.kt", "class A(x: Int = c1()) : B by other {\n  init { c2() }\n  val p: Int\n    /** told */\n    get() = c3()\n  val q by lazy { c4() }\n  fun f(v: View) {\n    (v as? W)?.state = c5()\n    c6()\n  }\n}\n"},
    {"SwiftLoops", "a.swift", "func f() {\n  for i in c1() where c2() { c3() }\n  repeat { c4() } while c5()\n  while c6() { c7() }\n  guard let v = c8() else { c9(); return }\n  defer { c10() }\n}\n"},
    {"SwiftBranches", "a.swift", "func f() {\n  switch c1() {\n  case .one(let q) where c2(): c3()\n  default: c4()\n  }\n  do { try c5() } catch { c6() }\n  if let x = c7(), c8() { c9() } else { c10() }\n  let g = { c11() }\n}\nclass A { var p: Int { get { c12() } set { c13() } }\n  var w = 0 { didSet { c14() } } }\n"},
    {"ObjcStatements", "a.m", "void f(void) { for (int i = c1(); c2(); c3()) { c4(); } do { c5(); } while (c6()); for (id x in c7()) { c8(); } switch (c9()) { case 1: c10(); } @synchronized (c11()) { c12(); } @try { c13(); } @catch (id e) { c14(); } @finally { c15(); } void (^b)(void) = ^{ c16(); }; }"},
    {"DartStatements", "a.dart", "void f() { for (var i = c1(), n = c2(); c3(); c4()) { c5(); } for (var x in c6()) { c7(); } do { c8(); } while (c9()); switch (c10()) { case 1: c11(); break; default: c12(); } try { c13(); } on E catch (e) { c14(); } finally { c15(); } var g = () => c16(); }"},
};

INSTANTIATE_TEST_SUITE_P(Languages, EveryCall, testing::ValuesIn(kForms), [](const testing::TestParamInfo<Forms>& info) { return std::string(info.param.name); });

}  // namespace
