// Hostile input: one clear line with the path, and the run goes on.
#include <sys/stat.h>

#include "blackbox/program.h"

namespace elmcart {
namespace {

constexpr const char* kGood = "class Gong {\n public:\n  static Gong& gong() { static Gong g; return g; }\n private:\n  Gong() {}\n  int n_ = 0;\n};\n";

// The good file beside the bad one is still surveyed.
void expectGoesOn(const Folder& folder, int exitCode, const std::string& message) {
  RunResult run = elmcart("survey --format json " + folder.path(), "", 60);
  EXPECT_FALSE(run.timedOut);
  EXPECT_EQ(run.exitCode, exitCode) << run.err;
  EXPECT_NE(run.err.find(message), std::string::npos) << run.err;
  EXPECT_NE(run.out.find("\"Gong\""), std::string::npos);
}

TEST(BadInput, BytesThatAreNoUtf8) {
  Folder folder;
  folder.write("good.cpp", kGood);
  folder.write("bad.cpp", "// caf\xe9 \xff\xfe\nint quay\xc3 = 1;\nconst char* name = \"\xe9\";\n");
  expectGoesOn(folder, 0, "");
}

TEST(BadInput, AVeryLargeFile) {
  Folder folder;
  folder.write("good.cpp", kGood);
  folder.write("large.cpp", "");
  ASSERT_EQ(::truncate((folder / "large.cpp").c_str(), 200 << 20), 0);
  expectGoesOn(folder, 3, "large.cpp: left out: 200 MiB");
}

TEST(BadInput, ALineOfTenMegabytes) {
  Folder folder;
  folder.write("good.cpp", kGood);
  std::string line = "int table[] = {";
  while (line.size() < 10u << 20) line += "1234567, ";
  folder.write("long.cpp", line + "0};\n");
  expectGoesOn(folder, 0, "");
}

TEST(BadInput, AHundredThousandParentheses) {
  Folder folder;
  folder.write("good.cpp", kGood);
  folder.write("deep.cpp", "int f() { return " + std::string(100000, '(') + "1" + std::string(100000, ')') + "; }\n");
  folder.write("blocks.cpp", "void g() " + std::string(50000, '{') + std::string(50000, '}') + "\n");
  folder.write("unclosed.cpp", "void h() { return " + std::string(100000, '(') + "\n");
  expectGoesOn(folder, 3, "unclosed.cpp: left unread: brackets nested more than 5000 deep");
  // What the parser bears and the walk does not is an unread spot, not a crash.
  Folder lesser;
  lesser.write("good.cpp", kGood);
  lesser.write("deep.cpp", "int f() { return " + std::string(4000, '(') + "1" + std::string(4000, ')') + "; }\n");
  lesser.write("blocks.cpp", "void g() " + std::string(4000, '{') + std::string(4000, '}') + "\n");
  lesser.write("unclosed.cpp", "void h() { return " + std::string(4000, '(') + "\n");
  expectGoesOn(lesser, 0, "");
}

TEST(BadInput, DeepNestingInEveryLanguage) {
  Folder folder;
  std::vector<std::string> names;
  for (const char* extension : {"java", "py", "js", "ts", "tsx", "go", "cs", "php", "kt", "swift", "dart", "m"}) {
    names.push_back(std::string("deep.") + extension);
    folder.write(names.back(), "x = " + std::string(100000, '(') + "1" + std::string(100000, ')') + ";\n");
    folder.write(std::string("steps.") + extension, "x = " + std::string(4000, '(') + "1" + std::string(4000, ')') + ";\n");
  }
  RunResult run = elmcart("survey " + folder.path());
  EXPECT_EQ(run.exitCode, 3) << run.err;
  for (const std::string& name : names) EXPECT_NE(run.err.find(name + ": left unread"), std::string::npos) << name << "\n" << run.err;
}

// Files cut off in the middle: one grammar would go round for ever behind "a.le".
TEST(BadInput, FilesThatAreCutOff) {
  Folder folder;
  folder.write("good.cpp", kGood);
  std::string text = "class Book {\n  static final Book _only = Book._();\n  Book._();\n  // the length\n  int get count => _berths.length;\n  void add(String ship) {\n    _berths.add(ship.trim());\n  }\n  String show() => 'berth ${_berths.first} of \"${r'a'.length}\" /* no */ \\' and more';\n  /* the end */\n}\n";
  for (size_t length = 0; length < text.size(); ++length) folder.write("cut" + std::to_string(length) + ".dart", text.substr(0, length));
  folder.write("books.dart",
               "// The books of the harbour office, each kept by one object.\nlibrary office.books;\n\nimport 'dart:io';\n\npart 'tickets.dart';\n\n// A factory constructor over a static final.\n"
               "class BerthBook {  // entity: singleton BerthBook lazy language\n  static final BerthBook _only = BerthBook._();\n  final Map<String, int> _berths = {};\n\n  factory BerthBootory BerthBook() => _only;\n"
               "  BerthBook._();\n\n  void assign(String ship, int berth) {\n    _berths[ship] = berth;\n  }\n\n  int get count => _berths.le");
  expectGoesOn(folder, 0, "");
}

TEST(BadInput, ALoopOfSymbolicLinks) {
  Folder folder;
  folder.write("good.cpp", kGood);
  fs::create_directories(folder / "a");
  fs::create_directory_symlink(folder.path(), folder / "a/back");
  fs::create_symlink("self.cpp", folder / "self.cpp");
  expectGoesOn(folder, 0, "");
}

TEST(BadInput, BinaryContent) {
  Folder folder;
  folder.write("good.cpp", kGood);
  folder.write("binary.cpp", std::string("\x7f" "ELF\0\0\0\0", 8));
  expectGoesOn(folder, 3, "binary.cpp: left out: holds NUL bytes");
}

TEST(BadInput, AnUnreadableFolderAndFile) {
  if (::geteuid() == 0 && ::system("setpriv --version >/dev/null 2>&1") != 0) GTEST_SKIP() << "root reads everything here";
  Folder folder;
  folder.write("good.cpp", kGood);
  folder.write("closed/in.cpp", "int berth;\n");
  folder.write("secret.cpp", "int berth;\n");
  fs::permissions(folder.path(), fs::perms::all);
  fs::permissions(folder / "closed", fs::perms::none);
  fs::permissions(folder / "secret.cpp", fs::perms::none);
  RunOptions options;
  std::string as = ::geteuid() == 0 ? "setpriv --reuid=65534 --regid=65534 --clear-groups " : "";
  // The program itself must be reachable for that user.
  std::string copy = folder / "program";
  fs::copy_file(ELMCART_PROGRAM, copy);
  fs::permissions(copy, fs::perms::all);
  auto run = runCommand(as + copy + " survey --format json " + folder.path(), options);
  ASSERT_TRUE(run.ok());
  EXPECT_EQ(run->exitCode, 3) << run->err;
  EXPECT_NE(run->err.find("closed: cannot read the folder"), std::string::npos) << run->err;
  EXPECT_NE(run->err.find("secret.cpp: cannot be read"), std::string::npos) << run->err;
  EXPECT_NE(run->out.find("\"Gong\""), std::string::npos);
  fs::permissions(folder / "closed", fs::perms::owner_all);
}

TEST(BadInput, WhatIsNotThere) {
  RunResult run = elmcart("survey /no/such/harbour");
  EXPECT_EQ(run.exitCode, 3);
  EXPECT_NE(run.err.find("/no/such/harbour: no such file or folder"), std::string::npos) << run.err;
  Folder folder;
  folder.write("notes.txt", "x");
  EXPECT_EQ(elmcart("survey " + (folder / "notes.txt")).exitCode, 3);
  EXPECT_EQ(elmcart("survey " + folder.path()).exitCode, 0);  // empty, and said so
}

TEST(BadInput, FilesThatVanishWhileTheyAreRead) {
  Folder folder;
  folder.write("good.cpp", kGood);
  for (int i = 0; i < 400; ++i) folder.write("coming/f" + std::to_string(i) + ".cpp", "int berth" + std::to_string(i) + ";\n");
  RunOptions options;
  auto run = runCommand("(sleep 0.02; rm -rf " + (folder / "coming") + ") & " + std::string(ELMCART_PROGRAM) + " survey --format json " + folder.path() + "; code=$?; wait; exit $code", options);
  ASSERT_TRUE(run.ok());
  EXPECT_TRUE(run->exitCode == 0 || run->exitCode == 3) << run->exitCode << run->err;
  EXPECT_NE(run->out.find("\"Gong\""), std::string::npos);
}

}  // namespace
}  // namespace elmcart
