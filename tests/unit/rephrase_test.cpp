// What a language has and its grammar has not: read without an unread byte, and
// with names and spans of the original.
#include <gtest/gtest.h>

#include "program/load.h"

namespace elmcart {
namespace {

struct Case {
  const char* file;
  const char* text;
  const char* named;   // a declaration or use that must be found …
  Kind kind;           // … of this kind
};

const Case kCases[] = {
    {"Quay.kt", "fun moor(n: Int) {\n  for (i in 0..<n) {\n    println(i)\n  }\n  val s = \"0..<n\"\n}\n", "println", Kind::Name},
    {"Berth.kt", "internal class Berth\nprivate constructor(val length: Int) : Place {\n  val free = true\n}\n", "Berth", Kind::Type},
    {"Berth.kt", "class Berth<T : Ship>\n@Marked(\"x\")\ninternal constructor(\n    private val ship: T,\n) : Place(), Named {\n  companion object {\n    val all = mutableListOf<String>()\n  }\n}\n", "all", Kind::Variable},
    {"Desk.kt", "class Desk {\n  fun show(tide: String) {\n    findView<Label>(ids.tide).text = tide\n    board.rows = 3\n    (tides as Board).shown = first(tide) ?: tide + \"m\"\n  }\n  constructor(x: Int)\n}\n", "show", Kind::Function},
    {"Desk.kt", "fun show() {\n  desk(1).text = tide\n}\n", "tide", Kind::Name},
    {"Light.kt", "class Light {\n  val lamp: Lamp\n    by lazy { Lamp() }\n  fun lit() = when {\n    !isOpen(lamp) && !inside -> 1\n    else -> 2\n  }\n}\n", "isOpen", Kind::Name},
    {"When.kt", "fun at(x: Any): Any {\n  when (x) {\n    null -> false\n    in first(1, 2) -> true\n    !in second -> if (x.open) return false\n    is Ship -> annotation.moor(it)\n    is Barge -> return emptyList()\n    else -> return elements\n  }\n}\n", "emptyList", Kind::Name},
    {"Lines.kt", "fun at(x: Any): Ship? {\n  if (free) x.note() else x.drop()\n  elseKeyword.drop()\n  val ship = find(x)\n      as? Ship ?: return null\n  find(x).shown =\n      tide\n  return ship\n}\n", "elseKeyword", Kind::Name},
    {"Proxy.kt", "fun proxy(ship: Ship) = object : Ship by ship {\n  override fun name() = external.name\n}\n", "name", Kind::Function},
    {"Tide.swift", "struct Tests {\n  @Test\n  func `high water: no wind, 2 m`() async throws {\n    note(1)\n  }\n}\n", "`high water: no wind, 2 m`", Kind::Function},
    {"Quay.swift", "final class Quay {\n  let kinds: [Any]\n  var ship: Ship\n  init(_ s: consuming Ship) {\n    kinds = [~Ship.self, ~Barge.self]\n    ship = consume s\n  }\n  typealias Work = @Sendable (Int) async throws -> sending Ship\n}\n", "Quay", Kind::Type},
    {"desk.js", "/**\n * @flow strict\n */\n'use strict';\nexport type Tide = {height: number, at: ?string};\nlet latest: ?Tide = null;\nexport function tideNow(): ?Tide {\n  return latest;\n}\n", "latest", Kind::Variable},
    {"board.js", "// @flow\nopaque type Key = string;\nexport default component Board(rows: number, ...rest: Props) {\n  return rows;\n}\n", "Board", Kind::Function},
    {"crane.cc", "struct Crane { void lift(); };\ntypedef void (Crane::*Act)();\nvoid run(Crane* crane, Act* acts, int i) { (crane->*acts[i])(); }\n", "run", Kind::Function},
    {"quay.cc", "struct Ship;\nstruct Quay {\n  Quay(int n) : count(n), ships(new Ship*[n]) {}\n  int count;\n  Ship** ships;\n};\n", "ships", Kind::Variable},
    {"Dock.m", "@implementation Dock\nDOCK_NOT_MADE(- (instancetype)initWithFrame : (Rect)frame)\n- (void)open\n{\n  (void)lock_take(&gate);\n  CHECK([self isOpen], \"open\")\n\n  [self note];\n  ONLY_OLD(RETAIN(self);)\n}\n@end\n", "open", Kind::Function},
    {"Flags.m", "@implementation Flags (Convert)\nFLAG_CONVERTER(\n    FlagStyle,\n    (@{\n      @\"large\" : @(1),\n    }),\n    integerValue)\n\n@end\n\n@implementation Board\n- (int)count\n{\n  return 1;\n}\n@end\n", "count", Kind::Function},
    {"Convert.h", "#import <Harbour/Harbour.h>\n@class Quay;\nnamespace harbour::office {\nclass Board : public Sheet {\n public:\n  int rows() const;\n};\n}\n", "Board", Kind::Type},
};

TEST(Rephrase, ReadsWhatTheGrammarDoesNotKnowYet) {
  for (const Case& c : kCases) {
    LoweredFile file = lowerText(c.file, c.text);
    EXPECT_EQ(file.unreadBytes, 0u) << c.file << "\n" << c.text << printTree(file);
    bool found = false;
    for (NodeId n = 1; n < file.nodes.size(); ++n) {
      if (file[n].kind != c.kind || file.name(n) != c.named) continue;
      found = true;
      // The name stands in the original where the node says.
      std::string_view text = c.text;
      EXPECT_EQ(text.substr(file[n].nameBegin, file.name(n).size()), c.named) << c.file;
    }
    EXPECT_TRUE(found) << c.file << ": no " << c.named << "\n" << printTree(file);
  }
}

TEST(Rephrase, LeavesStringsAndCommentsAlone) {
  LoweredFile file = lowerText("Quay.kt", "// 0..<n\nval text = \"0..<n class A\nconstructor(\"\n");
  for (NodeId n = 1; n < file.nodes.size(); ++n) EXPECT_LE(file[n].span.end, 48u);
  LoweredFile kept = lowerText("Dock.m", "// NOTE(a; b;)\nint NOTE = 1; /* (void)f( */\n");
  EXPECT_EQ(kept.unreadBytes, 0u);
  EXPECT_EQ(kept.comments.size(), 2u);
}

}  // namespace
}  // namespace elmcart
