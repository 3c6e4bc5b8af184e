// Supply, carried out by the built program: the office builds and prints what it
// printed before, and now a double can be handed in.
#include <cstdlib>

#include "blackbox/tools.h"

namespace elmcart {
namespace {

struct Supplied {
  const char* language;
  const char* needs;
  const char* build;               // of the office
  const char* run;
  std::vector<const char*> classes;
  const char* doubleFile;          // a program that hands a double in …
  const char* doubleText;
  const char* doubleRun;           // … built and run by this; it prints 42
};

void PrintTo(const Supplied& s, std::ostream* out) { *out << s.language; }

const std::vector<Supplied>& all() {
  static const std::vector<Supplied> kAll = {
      {"typescript", "node", "node $ELMCART_TYPESCRIPT --skipLibCheck --strict --target es2022 --module commonjs --lib es2022,dom --outDir out *.ts", "node out/desk.js", {"Desk"}, "try_double.ts",
       "import { Desk } from './desk';\nconst calm = { read: () => 'x'.repeat(40) };\nconsole.log(new Desk('no', calm as never).height());\n",
       "node $ELMCART_TYPESCRIPT --skipLibCheck --strict --target es2022 --module commonjs --lib es2022,dom --outDir out *.ts && node out/try_double.js | tail -1"},
      {"python", "python3", "python3 -m py_compile desk.py", "python3 desk.py", {"Desk", "Board"}, "try_double.py",
       "import desk\n\n\nclass Calm:\n    def read(self):\n        return 'x' * 40\n\n\nprint(desk.Desk('none', tides=Calm()).height() + desk.Board(1, tides=Calm()).width() - 40)\n", "python3 try_double.py"},
      {"javascript", "node", "node --check desk.js", "node desk.js", {"Desk", "Board"}, "try_double.js",
       "const { Desk, Board } = require('./desk.js');\nconst calm = { read: () => 'x'.repeat(40) };\nconsole.log(new Desk('none', calm).height() + new Board(2, calm).width() - 40);\n", "node try_double.js"},
      {"php", "php", "php -l Desk.php", "php Desk.php", {"Desk"}, "try_double.php",
       "<?php\nrequire 'Desk.php';\nclass Calm extends TideFile { public function __construct() {} public function read(): string { return str_repeat('x', 42); } }\necho (new Desk('none', new Calm()))->height(), \"\\n\";\n", "php try_double.php"},
      {"java", "javac", "javac -J-XX:TieredStopAtLevel=1 -J-XX:+UseSerialGC -d out Desk.java", "java -cp out Office", {"Desk"}, "TryDouble.java",
       "class TryDouble {\n    public static void main(String[] args) throws Exception {\n        System.out.println(new Desk(\"none\", new TideFile(\"\") { String read() { return \"x\".repeat(42); } }).height());\n    }\n}\n",
       "javac -J-XX:TieredStopAtLevel=1 -J-XX:+UseSerialGC -d out Desk.java TryDouble.java && java -cp out TryDouble"},
      {"cpp", "g++", "g++ -std=c++20 -o office main.cpp desk.cpp", "./office", {"Desk"}, "try_double.cc",
       "#include <iostream>\n\n#include \"desk.h\"\n\nstruct Calm : TideFile {\n  Calm() : TideFile(\"\") {}\n  std::string read() const override { return std::string(42, 'x'); }\n};\n\nint main() { std::cout << Desk(\"none\", std::make_unique<Calm>()).height() << \"\\n\"; }\n",
       "g++ -std=c++20 -o try_double try_double.cc desk.cpp && ./try_double"},
      {"csharp", "mcs", "mcs -nologo -out:office.exe Desk.cs", "mono office.exe", {"Desk", "Board"}, "TryDouble.cs",
       "class TryDouble\n{\n    static void Main()\n    {\n        System.IO.File.WriteAllText(\"calm.txt\", new string('x', 42));\n        System.Console.WriteLine(new Desk(\"none\", new TideFile(\"calm.txt\")).Height());\n    }\n}\n",
       "mcs -nologo -warn:0 -main:TryDouble -out:double.exe Desk.cs TryDouble.cs && mono double.exe"},
  };
  return kAll;
}

class InjectCollaboratorIn : public testing::TestWithParam<Supplied> {};

TEST_P(InjectCollaboratorIn, KeepsWhatRunsAndTakesADouble) {
  const Supplied& s = GetParam();
  if (!installed(s.needs)) GTEST_SKIP() << s.needs << " is not installed";
  std::string compiler = std::string(ELMCART_TEST_TOOLS) + "/node_modules/typescript/bin/tsc";
  if (std::string(s.language) == "typescript" && !fs::exists(compiler)) GTEST_SKIP() << "scripts/setup_tests.sh brings the compiler";
  ::setenv("ELMCART_TYPESCRIPT", compiler.c_str(), 1);
  Folder folder;
  fs::copy(std::string(ELMCART_REWORK) + "/mending/inject-collaborator/" + s.language, folder.path(), fs::copy_options::recursive);
  folder.write("elmcart.toml", "[build]\ncommands = [\"" + std::string(s.build) + "\"]\n[test]\nbaseline-runs = 1\n[read]\nleave-out = [\"out/**\"]\n[[witness]]\nname = \"office\"\ncommand = \"" + s.run + "\"\n");
  for (const char* name : s.classes) {
    RunResult run = elmcart("rework " + std::string(name) + " . --move inject-collaborator --write --format json", folder.path());
    ASSERT_EQ(run.exitCode, 0) << run.out << run.err;
    auto result = jsonOf(run);
    ASSERT_EQ(result["steps"].size(), 1u) << result["byHand"];
    EXPECT_TRUE(result["steps"][0]["kept"].get<bool>()) << result["steps"][0];
    EXPECT_NE(result["steps"][0]["outcome"].get<std::string>().find("1 witness as before"), std::string::npos) << result["steps"][0]["outcome"];
    EXPECT_TRUE(result["byHand"].empty()) << result["byHand"];
  }
  folder.write(s.doubleFile, s.doubleText);
  RunResult doubled = inFolder(folder, s.doubleRun);
  EXPECT_EQ(doubled.exitCode, 0) << doubled.out << doubled.err;
  EXPECT_EQ(doubled.out, "42\n") << doubled.err;
  // A class that is the target needs no name of a move.
  RunResult again = elmcart("propose Desk .", folder.path());
  EXPECT_NE(again.exitCode, 0);
  EXPECT_NE(again.err.find("it makes nothing for itself"), std::string::npos) << again.out << again.err;
}

INSTANTIATE_TEST_SUITE_P(All, InjectCollaboratorIn, testing::ValuesIn(all()), [](const auto& info) { return std::string(info.param.language); });

TEST(InjectCollaborator, SaysWhichClassesBearAName) {
  Folder folder;
  folder.write("a/desk.py", "class Desk:\n    pass\n");
  folder.write("b/desk.py", "class Desk:\n    pass\n");
  RunResult several = elmcart("propose Desk . --move inject-collaborator", folder.path());
  EXPECT_NE(several.exitCode, 0);
  EXPECT_NE(several.err.find("is the name of several classes: a.desk.Desk, b.desk.Desk"), std::string::npos) << several.err;
  RunResult none = elmcart("propose Quay . --move inject-collaborator", folder.path());
  EXPECT_NE(none.err.find("Quay: no such class in this tree"), std::string::npos) << none.err;
}

}  // namespace
}  // namespace elmcart
