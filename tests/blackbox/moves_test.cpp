// The moves that mend one class, on the examples of the checks that advise them:
// the finding goes, the result compiles, and a fault that was shown by running
// does not happen any more.
#include <cstdlib>

#include "blackbox/tools.h"
#include "support/changes.h"
#include "source/walk.h"

namespace elmcart {
namespace {

struct Mended {
  const char* move;
  const char* check;
  const char* language;
};

void PrintTo(const Mended& m, std::ostream* out) { *out << m.move << " for " << m.check << " in " << m.language; }

class MovesMend : public testing::TestWithParam<Mended> {};

TEST_P(MovesMend, WhatTheCheckReports) {
  const Mended& m = GetParam();
  Tools tools = toolsFor(m.check, m.language);
  if (!installed(tools.needs)) GTEST_SKIP() << tools.needs << " is not installed";
  Folder folder;
  std::string files = writeExample(m.check, m.language, true, folder);
  auto filled = [&](std::string command) {
    if (size_t at = command.find("FILES"); at != std::string::npos) command.replace(at, 5, files);
    return command;
  };
  bool shown = kShown.count(m.check) && !(std::string(m.check) == "thread.double-check-unsound" && std::string(m.language) == "java");
  // The fault itself is no behaviour to keep: the steps are confirmed by building alone.
  folder.write("elmcart.toml", "[build]\ncommands = [\"" + filled(tools.compile) + "\"]\n[test]\nbaseline-runs = 1\n");
  std::string entity;
  auto count = [&] {
    size_t out = 0;
    auto assessed = jsonOf(elmcart("assess --format json .", folder.path()));
    for (const auto& f : assessed["findings"]) {
      out += f["check"] == m.check;
      if (f["check"] == m.check) entity = f["entity"];
    }
    return out;
  };
  ASSERT_GE(count(), 1u);
  RunResult reworked = elmcart("rework '" + entity + "' . --move " + m.move + " --write --format json", folder.path());
  ASSERT_EQ(reworked.exitCode, 0) << reworked.out << reworked.err;
  auto result = jsonOf(reworked);
  EXPECT_GE(result["steps"].size(), 1u) << result["byHand"];
  for (const auto& step : result["steps"]) EXPECT_TRUE(step["kept"].get<bool>()) << step;
  EXPECT_EQ(count(), 0u) << folder.read(files);
  RunResult compiled = inFolder(folder, filled(tools.compile));
  EXPECT_EQ(compiled.exitCode, 0) << compiled.out << compiled.err << folder.read(files);
  if (!shown) return;
  for (int turn = 0; turn < 3; ++turn) {
    RunResult after = inFolder(folder, filled(tools.run));
    EXPECT_EQ(after.exitCode, 0) << after.out << after.err << folder.read(files);
  }
}

INSTANTIATE_TEST_SUITE_P(All, MovesMend,
                         testing::Values(Mended{"safe-init", "thread.unguarded-creation", "cpp"}, Mended{"safe-init", "thread.unguarded-creation", "java"}, Mended{"safe-init", "thread.unguarded-creation", "csharp"},
                                         Mended{"safe-init", "thread.unguarded-creation", "python"}, Mended{"safe-init", "thread.unguarded-creation", "go"}, Mended{"safe-init", "thread.double-check-unsound", "cpp"},
                                         Mended{"safe-init", "thread.double-check-unsound", "java"}, Mended{"safe-init", "thread.double-check-incomplete", "java"}, Mended{"safe-init", "thread.lock-every-access", "cpp"},
                                         Mended{"safe-init", "init.lazy-needless", "java"}, Mended{"enforce", "single.open-constructor", "cpp"}, Mended{"enforce", "single.open-constructor", "java"}, Mended{"enforce", "single.cloneable", "php"}, Mended{"enforce", "single.revivable", "java"},
                                         Mended{"synchronize", "thread.lost-update", "cpp"}, Mended{"synchronize", "thread.lost-update", "java"}, Mended{"synchronize", "thread.lost-update", "csharp"},
                                         Mended{"synchronize", "thread.lost-update", "python"}, Mended{"synchronize", "thread.lost-update", "go"}, Mended{"synchronize", "thread.unguarded-state", "cpp"}, Mended{"synchronize", "thread.mixed-guard", "java"},
                                         Mended{"unregister", "lifetime.dangling-subscriber", "cpp"}, Mended{"unregister", "lifetime.dangling-subscriber", "java"}, Mended{"unregister", "lifetime.dangling-subscriber", "csharp"},
                                         Mended{"unregister", "lifetime.dangling-subscriber", "python"}, Mended{"unregister", "lifetime.dangling-subscriber", "javascript"}),
                         [](const auto& info) {
                           std::string name = std::string(info.param.move) + "_" + info.param.check + "_" + info.param.language;
                           for (char& c : name) if (c == '.' || c == '-') c = '_';
                           return name;
                         });

// The small programs of tests/rework/mending, built and run after each step by the program itself.
struct Program {
  const char* move;
  const char* language;
  const char* name;   // what is reworked
  const char* build;
  const char* run;
  const char* needs;
};

void PrintTo(const Program& p, std::ostream* out) { *out << p.move << " in " << p.language; }

class MovesRun : public testing::TestWithParam<Program> {};

TEST_P(MovesRun, AsBefore) {
  const Program& p = GetParam();
  if (!installed(p.needs)) GTEST_SKIP() << p.needs << " is not installed";
  std::string compiler = std::string(ELMCART_TEST_TOOLS) + "/node_modules/typescript/bin/tsc";
  if (std::string(p.language).rfind("typescript", 0) == 0 && !fs::exists(compiler)) GTEST_SKIP() << "scripts/setup_tests.sh brings the compiler";
  ::setenv("ELMCART_TYPESCRIPT", compiler.c_str(), 1);
  ::setenv("GO111MODULE", "off", 1);
  ::setenv("GOCACHE", (fs::temp_directory_path() / "elmcart-tests-go").c_str(), 1);
  Folder folder;
  fs::copy(std::string(ELMCART_REWORK) + "/mending/" + p.move + "/" + p.language, folder / "program", fs::copy_options::recursive);
  folder.write("program/elmcart.toml", std::string("[build]\ncommands = ['") + p.build + "']\n[test]\nbaseline-runs = 1\n[read]\nleave-out = [\"out/**\"]\n[[witness]]\nname = \"a day\"\ncommand = '" + p.run + "'\n");
  RunResult run = elmcart(std::string("rework '") + p.name + "' program --retire --move " + p.move + " --write --format json", folder.path());
  ASSERT_EQ(run.exitCode, 0) << run.out << run.err;
  auto result = jsonOf(run);
  EXPECT_GE(result["steps"].size(), 1u);
  EXPECT_TRUE(result["byHand"].empty()) << result["byHand"];
  for (const auto& step : result["steps"]) {
    EXPECT_TRUE(step["kept"].get<bool>()) << step;
    EXPECT_EQ(step["outcome"], "1 witness as before") << step;
  }
  Texts before = textsOf(std::string(ELMCART_REWORK) + "/mending/" + p.move + "/" + p.language), after;
  for (auto& [name, text] : textsOf(folder / "program"))
    if (before.count(name) || fs::path(name).extension() == fs::path(before.begin()->first).extension()) after[name] = text;
  EXPECT_EQ(changesBetween(before, after), *readWhole(std::string(ELMCART_REWORK) + "/mending/expected/" + p.move + "/" + p.language + ".diff"));
}

constexpr const char* kCpp = "g++ -std=c++20 -Wall -Wextra -Werror -pthread -o program *.cpp";
constexpr const char* kJava = "mkdir -p out && javac -J-XX:TieredStopAtLevel=1 -J-XX:+UseSerialGC -d out *.java";
constexpr const char* kSharp = "mcs -nologo -warnaserror -out:program.exe *.cs";
constexpr const char* kTypes = "node $ELMCART_TYPESCRIPT --skipLibCheck --strict --target es2022 --module commonjs --lib es2022,dom --outDir out *.ts";
constexpr const char* kPhp = "for f in *.php; do php -l $f || exit 1; done";
constexpr const char* kPython = "python3 -m py_compile *.py";
constexpr const char* kGo = "go vet *.go && go build -o program *.go";
// Debian's Kotlin is no part of what scripts/setup_tests.sh installs: it takes ten seconds for a file.
constexpr const char* kKotlin = "kotlinc *.kt -d program.jar";
#define ELMCART_KOTLIN "java -cp program.jar:/usr/share/java/kotlin-stdlib.jar "

INSTANTIATE_TEST_SUITE_P(All, MovesRun,
                         testing::Values(Program{"extract-interface", "cpp", "TideTable", kCpp, "./program", "g++"}, Program{"extract-interface", "java", "TideTable", kJava, "java -cp out office.Pilot", "javac"},
                                         Program{"extract-interface", "csharp", "TideTable", kSharp, "mono program.exe", "mcs"}, Program{"extract-interface", "typescript", "TideTable", kTypes, "node out/main.js", "node"},
                                         Program{"extract-interface", "php", "TideTable", kPhp, "php office.php", "php"}, Program{"extract-interface", "python", "TideTable", kPython, "python3 pilot.py", "python3"},
                                         Program{"extract-interface", "go", "TideTable", kGo, "./program", "go"}, Program{"inject", "java", "TideTable", kJava, "java -cp out Harbour", "javac"}, Program{"inject", "go-makers", "BerthBook", kGo, "./program", "go"}, Program{"wrap", "cpp", "Tides", kCpp, "./program", "g++"}, Program{"inject-parameter", "java", "TideTable", kJava, "java -cp out Harbour", "javac"},
                                         Program{"inject-parameter", "go", "TideTable", kGo, "./program", "go"}, Program{"make-local", "cpp", "Desk::served_", kCpp, "./program", "g++"},
                                         Program{"make-local", "cpp-object", "TideTable", kCpp, "./program", "g++"}, Program{"make-local", "java", "Desk.served", kJava, "java -cp out Desk", "javac"},
                                         Program{"make-local", "java-object", "TideTable", kJava, "java -cp out Harbour", "javac"}, Program{"make-local", "csharp", "Desk.served", kSharp, "mono program.exe", "mcs"},
                                         Program{"make-local", "csharp-object", "TideTable", kSharp, "mono program.exe", "mcs"}, Program{"make-local", "typescript", "main.served", kTypes, "node out/main.js", "node"},
                                         Program{"make-local", "typescript-object", "tides.TideTable", kTypes, "node out/main.js", "node"}, Program{"make-local", "javascript", "main.Desk.served", "node --check main.js", "node main.js", "node"},
                                         Program{"make-local", "javascript-object", "tides.table", "node --check main.mjs", "node main.mjs", "node"}, Program{"make-local", "php", "Desk\\served", kPhp, "php desk.php", "php"},
                                         Program{"make-local", "php-object", "TideTable", kPhp, "php harbour.php", "php"}, Program{"make-local", "python", "desk._served", kPython, "python3 desk.py", "python3"},
                                         Program{"make-local", "python-object", "tides.table", kPython, "python3 desk.py", "python3"}, Program{"make-local", "go", "main.served", kGo, "./program", "go"}, Program{"wrap", "java", "Tides", kJava, "java -cp out Harbour", "javac"},
                                         Program{"wrap", "csharp", "Tides", kSharp, "mono program.exe", "mcs"}, Program{"wrap", "typescript", "Tides", kTypes, "node out/main.js", "node"},
                                         Program{"wrap", "javascript", "Tides", "node --check main.mjs", "node main.mjs", "node"}, Program{"wrap", "php", "Tides", kPhp, "php harbour.php", "php"},
                                         Program{"wrap", "python", "Tides", kPython, "python3 harbour.py", "python3"}, Program{"own", "cpp", "Desk", kCpp, "./program", "g++"},
                                         Program{"own", "cpp-result", "newBuoy", kCpp, "./program", "g++"}, Program{"broadcast", "cpp", "harbour::open", kCpp, "./program", "g++"},
                                         Program{"broadcast", "java", "Harbour.open", kJava, "java -cp out Harbour", "javac"}, Program{"broadcast", "csharp", "Harbour.Open", kSharp, "mono program.exe", "mcs"},
                                         Program{"broadcast", "typescript", "open", kTypes, "node out/main.js", "node"}, Program{"broadcast", "javascript", "open", "node --check main.js", "node main.js", "node"},
                                         Program{"broadcast", "php", "open", kPhp, "php harbour.php", "php"}, Program{"broadcast", "python", "open_harbour", kPython, "python3 harbour.py", "python3"},
                                         Program{"broadcast", "go", "open", kGo, "./program", "go"},
                                         Program{"inject-parameter", "csharp", "TideTable", kSharp, "mono program.exe", "mcs"}, Program{"inject-parameter", "python", "TideTable", kPython, "python3 before.py", "python3"},
                                         Program{"inject-parameter", "javascript", "TideTable", "node --check before.js", "node before.js", "node"}, Program{"inject-parameter", "typescript", "TideTable", kTypes, "node out/before.js", "node"},
                                         Program{"inject-parameter", "php", "TideTable", kPhp, "php before.php", "php"}, Program{"unregister", "go", "signalMast", kGo, "./program", "go"},
                                         Program{"unregister", "php", "SignalMast", kPhp, "php before.php", "php"}, Program{"unregister", "typescript", "before.mast", kTypes, "node out/before.js", "node"},
                                         Program{"enforce", "typescript", "TideTable", kTypes, "node out/tides.js", "node"}, Program{"enforce", "csharp", "TideTable", kSharp, "mono program.exe", "mcs"},
                                         Program{"inject-parameter", "kotlin", "TideTable", kKotlin, ELMCART_KOTLIN "BeforeKt", "kotlinc"}, Program{"safe-init", "kotlin", "TideTable", kKotlin, ELMCART_KOTLIN "BeforeKt", "kotlinc"},
                                         Program{"synchronize", "kotlin", "CargoScale", kKotlin, ELMCART_KOTLIN "BeforeKt", "kotlinc"}, Program{"unregister", "kotlin", "SignalMast", kKotlin, ELMCART_KOTLIN "BeforeKt", "kotlinc"},
                                         Program{"make-local", "kotlin", "served", kKotlin, ELMCART_KOTLIN "DeskKt", "kotlinc"}, Program{"make-local", "kotlin-object", "TideTable", kKotlin, ELMCART_KOTLIN "HarbourKt", "kotlinc"},
                                         Program{"extract-interface", "kotlin", "TideTable", kKotlin, ELMCART_KOTLIN "office.OfficeKt", "kotlinc"}, Program{"wrap", "kotlin", "Tides", kKotlin, ELMCART_KOTLIN "HarbourKt", "kotlinc"},
                                         Program{"broadcast", "kotlin", "open", kKotlin, ELMCART_KOTLIN "HarbourKt", "kotlinc"}),
                         [](const auto& info) {
                           std::string name = std::string(info.param.move) + "_" + info.param.language;
                           for (char& c : name) if (c == '-') c = '_';
                           return name;
                         });

// Closing what somebody uses does not build: it is taken back, and the rest goes on.
TEST(Moves, TakeBackWhatDoesNotBuild) {
  Folder folder;
  std::string files = writeExample("single.copyable", "cpp", true, folder);
  folder.write("elmcart.toml", "[build]\ncommands = [\"g++ -std=c++20 -fsyntax-only " + files + "\"]\n[test]\nbaseline-runs = 1\n");
  RunResult run = elmcart("rework BerthBook . --move enforce --write --format json", folder.path());
  EXPECT_EQ(run.exitCode, 1);
  auto result = jsonOf(run);
  ASSERT_EQ(result["steps"].size(), 2u);
  EXPECT_FALSE(result["steps"][0]["kept"].get<bool>());
  EXPECT_NE(result["steps"][0]["differences"][0]["detail"].get<std::string>().find("deleted function"), std::string::npos);
  EXPECT_TRUE(result["steps"][1]["kept"].get<bool>());
  EXPECT_EQ(folder.read(files).find("= delete"), std::string::npos);
  EXPECT_NE(folder.read(files).find("class BerthBook final {"), std::string::npos);
}

// What cannot be done is said, and nothing is written.
TEST(Moves, SayWhatTheyCannotDo) {
  Folder folder;
  folder.write("mast.py", "class Mast:\n    _mast = None\n\n    @classmethod\n    def mast(cls):\n        if cls._mast is None:\n            cls._mast = cls()\n            print(\"raised\")\n        return cls._mast\n\n    def hoist(self):\n        self.flags = 1\n");
  RunResult run = elmcart("propose Mast . --move safe-init", folder.path());
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.err.find("does more than create it"), std::string::npos) << run.err;
  run = elmcart("propose Mast . --move enforce", folder.path());
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.err.find("no way to close a class"), std::string::npos) << run.err;
  run = elmcart("propose Mast . --move safe-inot", folder.path());
  EXPECT_EQ(run.exitCode, 2);
  EXPECT_NE(run.err.find("did you mean safe-init?"), std::string::npos) << run.err;
}

}  // namespace
}  // namespace elmcart
