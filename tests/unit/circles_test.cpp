// Declarations that lead back to themselves, legal or not: whatever is read, the work ends, and the
// bases of the linked classes form no circle.
#include <gtest/gtest.h>

#include <fstream>

#include "assess/analysis.h"
#include "support/folder.h"

namespace elmcart {
namespace {

struct Shape {
  const char* name;
  std::vector<std::pair<const char*, const char*>> files;
};

void PrintTo(const Shape& shape, std::ostream* out) { *out << shape.name; }

const std::vector<Shape>& shapes() {
  static const std::vector<Shape> kShapes = {
      {"typescript_class_implements_its_subclass", {{"a.ts", "class T1 implements T2 {}  class T2 extends T1 {}  let t: T1;"}}},
      {"typescript_interfaces", {{"a.ts", "interface A extends B {} interface B extends C {} interface C extends A {} export const a: A = null;"}}},
      {"typescript_aliases", {{"a.ts", "type A = B; type B = C; type C = A; export let a: A;"}}},
      {"typescript_reexports", {{"a.ts", "export * from './b'; export { mast } from './b'; import { mast } from './b'; mast.raise();"}, {"b.ts", "export * from './a'; export { mast } from './a';"}}},
      {"typescript_module_of_its_own_name", {{"mast.ts", "import { mast } from './mast'; export { mast }; mast.raise();"}}},
      {"typescript_namespaces", {{"a.ts", "namespace A { export import B = A; export import C = B; export let n = 1; } A.B.C.n = 2;"}}},
      {"javascript_bases", {{"a.js", "class A extends B {} class B extends A {} const a = new A(); a.raise();"}}},
      {"javascript_requires", {{"a.js", "const b = require('./b'); exports.a = b.b; b.b.raise();"}, {"b.js", "const a = require('./a'); exports.b = a.a; a.a.raise();"}}},
      {"java_bases", {{"A.java", "class A extends B { static A a = new A(); void f() { a.f(); g(); } } class B extends C {} class C extends A {}"}}},
      {"java_interfaces", {{"A.java", "interface A extends B, C {} interface B extends A, C {} interface C extends A, B {} class D implements A { static D d = new D(); void f() { d.g(); } }"}}},
      {"java_inner_class_is_the_base", {{"A.java", "class A extends A.B { static class B extends A { static A a; } void f() { B.a.f(); } }"}}},
      {"kotlin_bases", {{"A.kt", "open class A : B() { companion object { val a = A() } }\nopen class B : A()\nfun f() { A.a.toString() }\n"}}},
      {"kotlin_aliases", {{"A.kt", "typealias A = B\ntypealias B = A\nval a: A? = null\n"}}},
      {"csharp_bases", {{"A.cs", "class A : B { static A a = new A(); void F() { a.F(); G(); } } class B : A {}"}}},
      {"csharp_aliases", {{"A.cs", "using X = Y; using Y = X; class A { static X x; void F() { x.F(); } }"}}},
      {"csharp_namespaces", {{"A.cs", "namespace N { using N; namespace N { using N.N; class A { static A a = new A(); } } }"}}},
      {"python_bases", {{"a.py", "class A(B):\n    pass\n\nclass B(A):\n    pass\n\na = A()\na.raise_()\n"}}},
      {"python_imports", {{"a.py", "from b import mast\nmast.flags = 1\n"}, {"b.py", "from a import mast\nmast.flags = 2\n"}}},
      {"python_package_of_itself", {{"p/__init__.py", "from p import p\nfrom . import p\np.n = 1\n"}}},
      {"php_bases", {{"a.php", "<?php\nclass A extends B { static $a; use T; } class B extends A {} trait T { use U; } trait U { use T; } A::$a = new A(); A::$a->f();\n"}}},
      {"php_uses", {{"a.php", "<?php\nnamespace N; use N\\A as B; use N\\B as A; class C extends A { static $c; }\n"}}},
      {"go_embedding", {{"a.go", "package p\n\ntype A struct{ *B }\ntype B struct{ *A }\n\nvar a = &A{}\n\nfunc f() { a.G() }\n"}}},
      {"go_aliases", {{"a.go", "package p\n\ntype A = B\ntype B = A\n\nvar a A\n\nfunc f() { a.G() }\n"}}},
      {"swift_bases", {{"a.swift", "class A: B { static let shared = A() }\nclass B: A {}\nprotocol P: Q {}\nprotocol Q: P {}\nextension A: P {}\nfunc f() { A.shared.g() }\n"}}},
      {"swift_aliases", {{"a.swift", "typealias A = B\ntypealias B = A\nvar a: A? = nil\n"}}},
      {"objc_bases", {{"a.m", "@interface A : B\n@end\n@interface B : A\n@end\n@protocol P <Q>\n@end\n@protocol Q <P>\n@end\n@implementation A\n+ (A *)shared { static A *a; if (!a) a = [[A alloc] init]; return a; }\n@end\nvoid f(void) { [[A shared] g]; }\n"}}},
      {"dart_bases", {{"a.dart", "class A extends B implements C {} class B extends A {} mixin C on A {} final a = A(); void f() { a.g(); }"}}},
      {"dart_exports", {{"a.dart", "export 'b.dart';\nimport 'b.dart';\nvoid f() { mast.raise(); }\n"}, {"b.dart", "export 'a.dart';\nimport 'a.dart';\n"}}},
      {"cpp_bases", {{"a.cpp", "struct A : B { static A a; void f() { a.f(); g(); } }; struct B : A {};"}}},
      {"cpp_typedefs", {{"a.cpp", "typedef struct A A; typedef B C; typedef C B; using D = E; using E = D; D* d; void f() { d->g(); }"}}},
      {"cpp_using_directives", {{"a.cpp", "namespace a { using namespace b; int n; } namespace b { using namespace a; } namespace c = d; namespace d = c; void f() { a::b::n = c::n; }"}}},
      {"cpp_includes", {{"a.h", "#include \"b.h\"\nextern int a;\n"}, {"b.h", "#include \"a.h\"\nextern int b;\n"}, {"a.cpp", "#include \"a.h\"\nint a = b;\nint b = a;\n"}}},
      {"cpp_base_is_its_own_argument", {{"a.cpp", "template <class T> struct Base : T { static T& get() { static T t; return t; } }; struct A : Base<A> { void f() { get().f(); } };"}}},
  };
  return kShapes;
}

class Circles : public testing::TestWithParam<Shape> {};

TEST_P(Circles, End) {
  Folder folder;
  for (auto& [name, text] : GetParam().files) folder.write(name, text);
  auto analysis = analyse(folder.path(), Config{}, 1, true);
  ASSERT_TRUE(analysis.ok());
  const Program& p = (*analysis)->program;
  for (TypeIndex t = 0; t < p.types.size(); ++t)
    for (const Base& base : p.types[t].bases) EXPECT_FALSE(base.type != kNone && p.derivesFrom(base.type, t)) << p.text(p.types[t].qualified);
}

INSTANTIATE_TEST_SUITE_P(All, Circles, testing::ValuesIn(shapes()), [](const auto& info) { return std::string(info.param.name); });

// A chain of aliases that is named from its far end is longer than the stack is deep.
TEST(Circles, ALongChainOfAliasesIsFollowed) {
  Folder folder;
  std::string text = "struct Mast { int flags; };\n";
  constexpr int kCount = 5000;
  for (int i = kCount; i > 0; --i) text += "using A" + std::to_string(i) + " = A" + std::to_string(i - 1) + ";\n";
  text += "using A0 = Mast;\nA" + std::to_string(kCount) + " mast;\n";
  folder.write("a.cpp", text);
  auto analysis = analyse(folder.path(), Config{}, 1, false);
  ASSERT_TRUE(analysis.ok());
  const Program& p = (*analysis)->program;
  for (const Variable& v : p.variables) EXPECT_TRUE(p.text(v.name) != "mast" || p.typeText(v.type) == "Mast");
}

// A lattice has two ways to each base, and so 2^40 in all: each class is visited once.
TEST(Circles, ALatticeOfBasesIsWalkedOnce) {
  Folder folder;
  std::string text = "struct L0 {}; struct R0 {};\n";
  for (int i = 1; i <= 40; ++i) {
    std::string below = std::to_string(i - 1), here = std::to_string(i);
    text += "struct L" + here + " : L" + below + ", R" + below + " {}; struct R" + here + " : L" + below + ", R" + below + " {};\n";
  }
  text += "struct Mast : L40 { static Mast& get() { static Mast m; return m; } };\nvoid f() { Mast::get().noSuchMember(); }\n";
  folder.write("a.cpp", text);
  auto analysis = analyse(folder.path(), Config{}, 1, true);
  ASSERT_TRUE(analysis.ok());
  size_t visits = 0;
  const Program& p = (*analysis)->program;
  for (TypeIndex t = 0; t < p.types.size(); ++t)
    if (p.text(p.types[t].name) == "Mast") p.anyBase(t, [&](TypeIndex, const Base*) { return ++visits, false; });
  EXPECT_EQ(visits, 1u + 1u + 2u * 40u);
}

}  // namespace
}  // namespace elmcart
