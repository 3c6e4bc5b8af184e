// Comments taken out before a grammar sees a text: what is lowered must be told of
// the whole text, as if blanks had stood in their place.
#include "languages/comments.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <sstream>

#include "program/load.h"

namespace elmcart {
namespace {

std::string blanked(std::string text, const std::vector<Span>& spans) {
  for (Span span : spans)
    for (uint32_t i = span.begin; i < span.end; ++i)
      if (text[i] != '\n') text[i] = ' ';
  return text;
}

// Kind, name and places of each node.
std::string told(const LoweredFile& file) {
  std::ostringstream out;
  for (NodeId n = 1; n < file.nodes.size(); ++n) {
    const Node& node = file[n];
    out << kindName(node.kind) << ' ' << roleName(node.role) << ' ' << file.name(node) << " at " << node.nameBegin << ", " << node.span.begin << " to " << node.span.end << '\n';
  }
  return out.str();
}

uint32_t bytesUnread(const LoweredFile& file) {
  uint32_t sum = 0;
  for (const Node& node : file.nodes)
    if (node.kind == Kind::Unread) sum += node.span.size();
  return sum;
}

std::vector<std::string> commentsOf(std::string_view path, const std::string& text) {
  std::vector<std::string> out;
  for (Span span : lowerText(path, text).comments) out.push_back(text.substr(span.begin, span.size()));
  return out;
}

using Lines = std::vector<std::string>;

TEST(Comments, MoveNothingInTheSamples) {
  size_t files = 0, comments = 0;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(ELMCART_SAMPLES)) {
    std::string path = entry.path().string();
    if (!path.ends_with(".java") && !path.ends_with(".go")) continue;
    std::ifstream in(path);
    std::string text((std::istreambuf_iterator<char>(in)), {});
    LoweredFile file = lowerText(path, text);
    EXPECT_EQ(told(file), told(lowerText(path, blanked(text, file.comments)))) << path;
    ++files;
    comments += file.comments.size();
  }
  EXPECT_GT(files, 20u);
  EXPECT_GT(comments, 200u);
}

TEST(Comments, AreToldFromStringsAndCharacters) {
  EXPECT_EQ(commentsOf("a.java", "class A { String s = \"// no\"; /* yes */ char c = '\"'; String t = \"/* no */\"; // end\n}"), (Lines{"/* yes */", "// end"}));
  EXPECT_EQ(commentsOf("a.java", "class A { char c = '\\''; /* one */ String s = \"\\\\\"; /* two */ }"), (Lines{"/* one */", "/* two */"}));
  EXPECT_EQ(commentsOf("a.java", "class A { String s = \"\"\"\n  // \" no \\\"\"\" /* no */\n  \"\"\"; } // yes"), (Lines{"// yes"}));
  EXPECT_EQ(commentsOf("a.java", "class A { String s = \"\"; /* yes */ }"), (Lines{"/* yes */"}));
  EXPECT_EQ(commentsOf("a.go", "package a\nvar s = `// no \\` // yes\nvar r = '`' /* too */\n"), (Lines{"// yes", "/* too */"}));
  EXPECT_EQ(commentsOf("a.go", "package a\nvar s = `\n/* no\n*/` + \"`\" // yes `\n"), (Lines{"// yes `"}));
  // A string that is left open ends with its line.
  EXPECT_EQ(commentsOf("a.java", "class A { String s = \"open;\n // yes\n}"), (Lines{"// yes"}));
}

TEST(Comments, StandBetweenWords) {
  LoweredFile file = lowerText("a.java", "/* first */class/**/A/*x*//*y*/{ static/*\n*/int/*/ still */count/* = 1 */= 2; }// last");
  EXPECT_EQ(file.comments.size(), 8u);
  EXPECT_EQ(file.unreadBytes, 0u);
  NodeId count = kNoNode;
  for (NodeId n = 1; n < file.nodes.size(); ++n)
    if (file[n].kind == Kind::Variable) count = n;
  ASSERT_NE(count, kNoNode);
  EXPECT_EQ(file.name(count), "count");
  EXPECT_EQ(file.line(count), 2u);
  EXPECT_EQ(file[0].span, (Span{0, file.textSize}));
}

// The Go specification, Comments: one with a line's end in it acts like that.
TEST(Comments, EndAStatementWhereTheyEndALine) {
  LoweredFile file = lowerText("a.go", "package a\nfunc f() {\n  g() /* over\n  two */ h()\n}\n");
  EXPECT_EQ(file.unreadBytes, 0u);
  int calls = 0;
  for (const Node& node : file.nodes) calls += node.kind == Kind::Call;
  EXPECT_EQ(calls, 2);
}

TEST(Comments, LeaveUnreadBytesTrue) {
  for (std::string text : {"class A { int /* a */ ) ( /* b */ ; /* c */ int x; }", "class A { void f() { ) /* one */ ) // two\n ) } int y; }"}) {
    LoweredFile file = lowerText("a.java", text);
    EXPECT_GT(file.unreadBytes, 0u) << text;
    EXPECT_EQ(file.unreadBytes, bytesUnread(file)) << text;
    for (const Node& node : file.nodes) EXPECT_LE(node.span.end, text.size());
  }
  // One that never ends is no comment.
  LoweredFile open = lowerText("a.java", "class A { int x; } /* and so on");
  EXPECT_TRUE(open.comments.empty());
  EXPECT_GT(open.unreadBytes, 0u);
}

TEST(Comments, AddressUsWhereverTheyStand) {
  LoweredFile file = lowerText("a.java", "class A {\n  void f(int a, // elmcart: for the second\n         int b) {}\n}\n");
  ASSERT_EQ(file.notes.size(), 1u);
  EXPECT_EQ(file.notes[0].first, 2u);
  EXPECT_EQ(file.notes[0].second, " for the second");
}

}  // namespace
}  // namespace elmcart
