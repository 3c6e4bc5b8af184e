// probe: faults are made to happen by running, what is sound stays sound, and what was seen is kept.
#include <signal.h>

#include "blackbox/tools.h"

namespace elmcart {
namespace {

using Json = nlohmann::json;

// What an example's shared state is called, and in its sound twin.
struct Raced {
  const char* check;
  const char* language;
  const char* name;
  const char* sound;
};
void PrintTo(const Raced& raced, std::ostream* out) { *out << raced.check << " in " << raced.language; }

class RaceExample : public testing::TestWithParam<Raced> {};

TEST_P(RaceExample, HappensWhereItFailsAndNeverWhereItIsSound) {
  const Raced& raced = GetParam();
  Tools tools = toolsFor(raced.check, raced.language);
  if (!installed(tools.needs)) GTEST_SKIP() << tools.needs << " is not installed";
  for (bool failing : {true, false}) {
    Folder folder;
    writeExample(raced.check, raced.language, failing, folder);
    RunResult run = elmcart(std::string("probe race --no-evidence --format json --runs 3 --sound-runs 3 ") + (failing ? raced.name : raced.sound) + " .", folder.path());
    ASSERT_EQ(run.exitCode, 0) << run.out << run.err;
    size_t happened = 0, ran = 0, sound = 0;
    Json told = jsonOf(run);
    for (const Json& race : told["races"]) {
      const Json& asItIs = race["forms"][0];
      EXPECT_EQ(asItIs["failed"], 0) << race.dump(1);
      ran += asItIs["runs"].size();
      happened += asItIs["happened"].get<size_t>();
      if (race["forms"].size() > 1) sound += race["forms"][1]["happened"].get<size_t>();
    }
    EXPECT_GE(ran, 3u);
    EXPECT_EQ(happened, failing ? 3u : 0u) << run.out;
    EXPECT_EQ(sound, 0u) << run.out;
  }
}

INSTANTIATE_TEST_SUITE_P(All, RaceExample, testing::Values(
    Raced{"thread.unguarded-creation", "cpp", "TideTable", "TideTable"}, Raced{"thread.unguarded-creation", "java", "TideTable", "TideTable"}, Raced{"thread.unguarded-creation", "python", "TideTable", "TideTable"},
    Raced{"thread.unguarded-creation", "go", "tideTable", "tideTable"}, Raced{"thread.unguarded-creation", "csharp", "TideTable", "TideTable"},
    Raced{"thread.lost-update", "cpp", "CargoScale", "CargoScale"}, Raced{"thread.lost-update", "java", "CargoScale", "CargoScale"}, Raced{"thread.lost-update", "python", "scale", "scale"},
    Raced{"thread.lost-update", "go", "scale", "scale"}, Raced{"thread.lost-update", "csharp", "CargoScale", "CargoScale"}, Raced{"thread.check-then-act", "java", "BerthBook", "BerthBook"},
    Raced{"thread.await-gap", "javascript", "table", "table"}, Raced{"thread.await-gap", "python", "_table", "_table"},
    Raced{"lifetime.dangling-subscriber", "cpp", "SignalMast", "SignalMast"}, Raced{"lifetime.dangling-subscriber", "java", "SignalMast", "SignalMast"}, Raced{"lifetime.dangling-subscriber", "python", "mast", "mast"},
    Raced{"lifetime.dangling-subscriber", "javascript", "mast", "mast"}, Raced{"lifetime.dangling-subscriber", "csharp", "SignalMast", "SignalMast"}),
    [](const auto& info) {
      std::string name = std::string(info.param.check) + "_" + info.param.language;
      for (char& c : name) if (c == '.' || c == '-') c = '_';
      return name;
    });

TEST(RaceInTypeScript, GoesByTheProjectsOwnCompiler) {
  Folder folder;
  folder.write("tide.ts", "export class TideTable {\n  private static table: TideTable | null = null;\n  private constructor(private readonly heights: number[]) {}\n\n  static async tableFor(berth: number): Promise<TideTable> {\n    if (TideTable.table === null) {\n      const heights = await readHeights(berth);\n      TideTable.table = new TideTable(heights);\n    }\n    return TideTable.table;\n  }\n}\n\nfunction readHeights(berth: number): Promise<number[]> {\n  return new Promise((done) => setTimeout(() => done([berth, 1, 4]), 5));\n}\n");
  fs::create_directories(folder / "node_modules");
  if (!fs::exists(ELMCART_TEST_TOOLS "/node_modules/.bin/tsc")) GTEST_SKIP() << "scripts/setup_tests.sh brings the compiler";
  fs::create_directory_symlink(ELMCART_TEST_TOOLS "/node_modules/.bin", folder / "node_modules/.bin");
  RunResult run = elmcart("probe race --no-evidence --runs 3 TideTable .", folder.path());
  EXPECT_EQ(run.exitCode, 0) << run.out << run.err;
  EXPECT_NE(run.out.find("It happens: more than one is made (3 of 3 runs). No move mends it: Keep the promise"), std::string::npos) << run.out;
}

// In one of the two orders in which the files can be linked, by CMake and without; never in the sound twin.
TEST(RaceOfOrder, IsSeenInOneOfTheTwo) {
  for (bool failing : {true, false})
    for (bool byCMake : {false, true}) {
      Folder folder;
      std::string files = writeExample("init.order-across-files", "cpp", failing, folder);
      if (byCMake) folder.write("CMakeLists.txt", "cmake_minimum_required(VERSION 3.10)\nproject(board CXX)\nadd_executable(board " + files + ")\n");
      RunResult run = elmcart("probe race --no-evidence --format json --scenario order title .", folder.path());
      if (!failing) {
        EXPECT_NE(run.err.find("there is nothing to race here"), std::string::npos) << run.out << run.err;
        continue;
      }
      ASSERT_EQ(run.exitCode, 0) << run.out << run.err;
      Json told = jsonOf(run), form = told["races"][0]["forms"][0];
      EXPECT_EQ(form["runs"].size(), 2u);
      EXPECT_EQ(form["happened"], 1) << run.out;
      EXPECT_EQ(told["races"][0]["interleaving"][0], "board.cpp:5 uses harbourName, which is not made yet: that is done at name.cpp:5") << run.out;
    }
}

constexpr const char* kTable = "import time\n\n\nclass TideTable:\n    _table = None\n\n    def __init__(self):\n        self.heights = [3, 1, 4]\n\n    @classmethod\n    def table(cls):\n        if cls._table is None:\n            cls._table = cls()\n        return cls._table\n\n    def height(self, hour):\n        return self.heights[hour % 3]\n";

// Two users, and tests that pass the one seven times and the other not at all.
void writeTideOffice(const Folder& folder) {
  folder.write("tides.py", kTable);
  folder.write("quay.py", "import threading\n\nfrom tides import TideTable\n\n\nclass Quay:\n    def depth(self):\n        return TideTable.table().height(1)\n\n    def flood(self):\n        return TideTable.table().height(2)\n\n\ndef work():\n    Quay().depth()\n\n\ndef open_office():\n    for _ in range(2):\n        threading.Thread(target=work).start()\n");
  folder.write("tests/test_quay.py", "import unittest\n\nfrom quay import Quay\n\n\nclass QuayTest(unittest.TestCase):\n    def test_depth(self):\n        for _ in range(7):\n            self.assertEqual(Quay().depth(), 1)\n\n\nif __name__ == '__main__':\n    unittest.main()\n");
  folder.write("elmcart.toml", "[test]\ncommands = [\"python3 -m unittest -v tests.test_quay\"]\nbaseline-runs = 1\n");
}

TEST(Watch, CountsWhatTheProjectsOwnTestsDo) {
  Folder folder;
  writeTideOffice(folder);
  auto before = folder.texts();
  RunResult run = elmcart("probe watch --format json TideTable .", folder.path());
  ASSERT_EQ(run.exitCode, 0) << run.out << run.err;
  Json watched = jsonOf(run);
  EXPECT_EQ(watched["instances"].size(), 1u);
  EXPECT_EQ(watched["processes"], 1);
  std::map<std::string, size_t> counts;
  for (const Json& user : watched["users"]) counts[user["function"]] += user["count"].get<size_t>();
  EXPECT_EQ(counts, (std::map<std::string, size_t>{{"Quay.depth", 7}, {"Quay.flood", 0}}));
  EXPECT_EQ(watched["compared"], (std::vector<std::string>{"as surveyed: one is made in a process", "as surveyed: it is made by its first use"}));
  EXPECT_EQ(folder.texts(), before);
  // A command of one's own, which makes a second.
  run = elmcart("probe watch --run \"python3 -c 'import quay, tides; tides.TideTable(); quay.Quay().flood()'\" TideTable .", folder.path());
  EXPECT_EQ(run.exitCode, 1) << run.out;
  EXPECT_NE(run.out.find("not as surveyed: one is meant to be made, and 2 were made in one process"), std::string::npos) << run.out;
  run = elmcart("probe watch --run false TideTable .", folder.path());
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.err.find("nothing was seen, and the command failed"), std::string::npos) << run.err;
}

// Each counts in its own way; what is counted is the same.
TEST(Watch, CountsInEveryLanguage) {
  struct Program {
    const char* needs;
    const char* file;
    const char* text;
    const char* command;
  };
  for (const Program& program : {
           Program{"g++", "a.cpp", "class Tides {\n public:\n  static Tides& get() {\n    static Tides tides;\n    return tides;\n  }\n  int height() { return ++asked_; }\n\n private:\n  Tides() { asked_ = 0; }\n  int asked_;\n};\nint depth() { return Tides::get().height(); }\nint main() {\n  for (int i = 0; i < 7; ++i) depth();\n}\n", "g++ -Wall -Werror -o a a.cpp && ./a"},
           Program{"javac", "A.java", "class Tides {\n    private static Tides tides;\n    private int asked;\n    private Tides() {\n        asked = 0;\n    }\n    static Tides get() {\n        if (tides == null) tides = new Tides();\n        return tides;\n    }\n    int height() {\n        return ++asked;\n    }\n}\nclass Quay {\n    static int depth() {\n        return Tides.get().height();\n    }\n    public static void main(String[] arguments) {\n        for (int i = 0; i < 7; i++) depth();\n    }\n}\n", "javac -d out A.java && java -cp out Quay"},
           Program{"node", "a.js", "class Tides {\n  constructor() {\n    this.asked = 0;\n  }\n\n  height() {\n    this.asked += 1;\n    return this.asked;\n  }\n}\n\nconst tides = new Tides();\n\nfunction depth() {\n  return tides.height();\n}\n\nfor (let i = 0; i < 7; i += 1) depth();\n", "node a.js"},
           Program{"go", "a.go", "package main\n\ntype tideTable struct{ asked int }\n\nfunc (t *tideTable) height() int {\n\tt.asked++\n\treturn t.asked\n}\n\nvar tides = &tideTable{}\n\nfunc depth() int { return tides.height() }\n\nfunc main() {\n\tfor i := 0; i < 7; i++ {\n\t\tdepth()\n\t}\n}\n", "printf 'module a\\n\\ngo 1.18\\n' > go.mod; go run ."},
           Program{"php", "a.php", "<?php\nfinal class Tides\n{\n    private static $tides;\n    private $asked;\n\n    private function __construct()\n    {\n        $this->asked = 0;\n    }\n\n    public static function get()\n    {\n        if (self::$tides === null) {\n            self::$tides = new Tides();\n        }\n        return self::$tides;\n    }\n\n    public function height()\n    {\n        return ++$this->asked;\n    }\n}\n\nfunction depth()\n{\n    return Tides::get()->height();\n}\n\nfor ($i = 0; $i < 7; $i++) {\n    depth();\n}\n", "php a.php"},
           Program{"mcs", "a.cs", "sealed class Tides\n{\n    static Tides tides;\n    int asked;\n    Tides() { asked = 0; }\n    public static Tides Get()\n    {\n        if (tides == null) { tides = new Tides(); }\n        return tides;\n    }\n    public int Height() { return ++asked; }\n}\nstatic class Quay\n{\n    static int Depth() { return Tides.Get().Height(); }\n    static void Main()\n    {\n        for (int i = 0; i < 7; i++) { Depth(); }\n    }\n}\n", "mcs -nologo -out:a.exe a.cs && mono a.exe"}}) {
    if (!installed(program.needs)) continue;
    Folder folder;
    folder.write(program.file, program.text);
    std::string name = std::string(program.text).find("tideTable") != std::string::npos || std::string(program.file) == "a.js" ? "tides" : "Tides";
    RunResult run = elmcart("probe watch --format json --run \"" + std::string(program.command) + "\" " + name + " .", folder.path());
    ASSERT_EQ(run.exitCode, 0) << program.file << run.out << run.err;
    Json watched = jsonOf(run);
    size_t count = 0;
    for (const Json& user : watched["users"]) count += user["count"].get<size_t>();
    EXPECT_EQ(count, 7u) << program.file << run.out;
    EXPECT_EQ(watched["instances"].size(), 1u) << program.file << run.out;
  }
}

Json findingOf(const Folder& folder, const std::string& check) {
  Json all = jsonOf(elmcart("assess --format json .", folder.path()));
  for (const Json& finding : all["findings"])
    if (finding["check"] == check) return finding;
  return {};
}

TEST(ProbeEvidence, MakesAFindingCertainUntilItsCodeChanges) {
  Folder folder;
  writeTideOffice(folder);
  std::string check = "thread.unguarded-creation";
  Json before = findingOf(folder, check);
  ASSERT_FALSE(before.is_null());
  RunResult run = elmcart("probe race --runs 3 --sound-runs 3 TideTable .", folder.path());
  ASSERT_EQ(run.exitCode, 0) << run.out << run.err;
  Json after = findingOf(folder, check);
  EXPECT_EQ(after["sureness"], "certain");
  EXPECT_EQ(after["seen"]["happened"], 3);
  EXPECT_EQ(after["seen"]["sound"]["happened"], 0);
  EXPECT_GE(after["risk"], before["risk"]);
  EXPECT_NE(elmcart("assess .", folder.path()).out.find("Seen when it was run: creation of TideTable, in 3 of 3 runs; with safe-init: 0 of 3."), std::string::npos);
  // Lines in front of it change nothing; the function's own text does.
  std::string text = std::string("# The tides.\n") + kTable;
  folder.write("tides.py", text);
  EXPECT_EQ(findingOf(folder, check)["seen"]["old"], false);
  folder.write("tides.py", text.replace(text.find("if cls._table is None"), 0, "cls.asked = 1\n        "));
  Json old = findingOf(folder, check);
  EXPECT_EQ(old["seen"]["old"], true);
  EXPECT_EQ(old["sureness"], before["sureness"]);
  // What cannot be understood is told, and not written over.
  folder.write("elmcart-evidence.json", "{]");
  RunResult broken = elmcart("assess .", folder.path());
  EXPECT_EQ(broken.exitCode, 3);
  EXPECT_NE(broken.err.find("elmcart-evidence.json: is no evidence of a probe"), std::string::npos) << broken.err;
  EXPECT_NE(elmcart("probe race --runs 1 --sound-runs 0 TideTable .", folder.path()).err.find("is no evidence of a probe"), std::string::npos);
  EXPECT_EQ(folder.read("elmcart-evidence.json"), "{]");
}

TEST(Probe, SaysWhatCannotBeRunAndWhy) {
  Folder folder;
  folder.write("a.py", std::string(kTable) + "\n\nclass Clerk:\n    pass\n\n\nclass Board:\n    _board = None\n\n    @classmethod\n    def board(cls, clerk: Clerk):\n        if cls._board is None:\n            cls._board = cls()\n        return cls._board\n\n\nclass Slow:\n    _slow = None\n\n    @classmethod\n    def slow(cls):\n        if cls._slow is None:\n            time.sleep(60)\n            cls._slow = cls()\n        return cls._slow\n\n\nclass Broken:\n    _broken = None\n\n    def __init__(self):\n        raise ValueError('no tide')\n\n    @classmethod\n    def broken(cls):\n        if cls._broken is None:\n            cls._broken = cls()\n        return cls._broken\n");
  auto before = folder.texts();
  auto race = [&](const std::string& name, const std::string& more = "") { return elmcart("probe race --no-evidence --runs 2 --sound-runs 0 " + more + name + " .", folder.path()); };
  RunResult run = race("Board");
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.out.find("board needs Clerk, which cannot be made up"), std::string::npos) << run.out;
  // Filled in by hand it runs.
  Folder beside;
  race("Board", "--harness " + (beside / "harness.py") + " ");
  std::string harness = beside.read("harness.py");
  ASSERT_NE(harness.find("board(FILL_IN)"), std::string::npos) << harness;
  beside.write("harness.py", harness.replace(harness.find("FILL_IN"), 7, "of(\"a\").Clerk()"));
  run = race("Board", "--filled " + (beside / "harness.py") + " ");
  EXPECT_EQ(run.exitCode, 0) << run.out;
  EXPECT_NE(run.out.find("It happens: more than one is made (2 of 2 runs)"), std::string::npos) << run.out;
  run = race("Slow", "--seconds 2 ");
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.out.find("it did not end"), std::string::npos) << run.out;
  run = race("Broken");
  EXPECT_NE(run.out.find("failed: ValueError('no tide')"), std::string::npos) << run.out;
  EXPECT_EQ(elmcart("probe rage TideTable .", folder.path()).exitCode, 2);
  EXPECT_EQ(race("TideTable", "--scenario creations ").exitCode, 2);
  EXPECT_EQ(race("TideTable", "--threads 1 ").exitCode, 2);
  run = elmcart("probe watch TideTable .", folder.path());
  EXPECT_NE(run.err.find("nothing to run: give [test] commands in elmcart.toml, or --run COMMAND"), std::string::npos) << run.err;
  RunOptions bare;
  bare.folder = folder.path();
  bare.environment = {"PATH=/nowhere"};
  auto missing = runCommand(std::string(ELMCART_PROGRAM) + " probe race --no-evidence TideTable .", bare);
  EXPECT_NE(missing->out.find("python3 is not there: install python3"), std::string::npos) << missing->out;
  EXPECT_EQ(folder.texts(), before);
}

TEST(Probe, LeavesNothingBehindWhenItIsEnded) {
  Folder folder;
  folder.write("a.py", std::string(kTable) + "\n\nclass Slow:\n    _slow = None\n\n    @classmethod\n    def slow(cls):\n        if cls._slow is None:\n            time.sleep(617)\n            cls._slow = cls()\n        return cls._slow\n");
  // The temporary folder may well be in the tree itself.
  RunOptions options;
  options.folder = folder.path();
  auto run = runCommand("export TMPDIR=$PWD/scratch; mkdir scratch; " + std::string(ELMCART_PROGRAM) + " probe race --no-evidence Slow . & p=$!; sleep 2; kill -TERM $p; wait $p; echo $?; ls scratch; ls -l /proc/[0-9]*/cwd 2>/dev/null | grep $PWD/scratch", options);
  ASSERT_TRUE(run.ok());
  EXPECT_NE(run->out.find("143\n"), std::string::npos) << run->out << run->err;
  EXPECT_TRUE(run->out.ends_with("143\n")) << run->out;
}

// File names with blanks and letters of any alphabet, with a build by CMake and without.
TEST(Probe, TakesAnyFileName) {
  const char* desk = "class Desk {\n public:\n  static Desk* get() {\n    if (desk_ == nullptr) desk_ = new Desk;\n    return desk_;\n  }\n\n private:\n  Desk() {}\n  static Desk* desk_;\n};\n\nDesk* Desk::desk_ = nullptr;\n\nint main() { return Desk::get() == nullptr; }\n";
  for (bool byCMake : {false, true}) {
    Folder folder;
    folder.write("Kai süd/the desk.cpp", desk);
    if (byCMake) folder.write("CMakeLists.txt", "cmake_minimum_required(VERSION 3.20)\nproject(desk CXX)\nset(CMAKE_CXX_STANDARD 11)\nadd_executable(desk \"Kai süd/the desk.cpp\")\n");
    RunResult run = elmcart("probe race --no-evidence --runs 2 --sound-runs 0 Desk .", folder.path());
    EXPECT_EQ(run.exitCode, 0) << run.out << run.err;
    EXPECT_NE(run.out.find("It happens: more than one is made (2 of 2 runs)"), std::string::npos) << run.out;
  }
  Folder folder;
  folder.write("Kai süd/the table.py", kTable);
  RunResult run = elmcart("probe race --no-evidence --runs 2 --sound-runs 0 TideTable .", folder.path());
  EXPECT_NE(run.out.find("It happens: more than one is made (2 of 2 runs)"), std::string::npos) << run.out;
}

// What forks counts for itself, what floods is ended, and what dies is a result.
TEST(Probe, StaysBounded) {
  Folder folder;
  folder.write("a.py", "import os\n\n\nclass Flood:\n    _flood = None\n\n    def __init__(self):\n        while True:\n            print('water' * 1000)\n\n    @classmethod\n    def flood(cls):\n        if cls._flood is None:\n            cls._flood = cls()\n        return cls._flood\n\n\nclass Bell:\n    _bell = None\n\n    def __init__(self):\n        self.rung = 0\n\n    @classmethod\n    def bell(cls):\n        if cls._bell is None:\n            cls._bell = cls()\n        return cls._bell\n\n\ndef ring():\n    return Bell.bell()\n\n\ndef both():\n    ring()\n    child = os.fork()\n    ring()\n    if child:\n        os.waitpid(child, 0)\n");
  RunResult run = elmcart("probe race --no-evidence --runs 2 --sound-runs 0 --gap 0 Flood .", folder.path(), 120);
  EXPECT_NE(run.out.find("it printed more than can be kept"), std::string::npos) << run.out;
  run = elmcart("probe watch --format json --run \"python3 -c 'import a; a.both()'\" Bell .", folder.path());
  Json watched = jsonOf(run);
  EXPECT_EQ(watched["processes"], 2);
  size_t count = 0;
  for (const Json& user : watched["users"]) count += user["count"].get<size_t>();
  EXPECT_EQ(count, 3u) << run.out;
  // Evidence that cannot be written is one line, and what was seen is told all the same.
  folder.write("elmcart-evidence.json.new/in-the-way", "");
  folder.write("quay.py", "import threading\n\nimport a\n\n\ndef open_office():\n    for _ in range(2):\n        threading.Thread(target=a.ring).start()\n");
  run = elmcart("probe race --runs 1 --sound-runs 0 Bell .", folder.path());
  EXPECT_NE(run.err.find("elmcart-evidence.json: could not be written"), std::string::npos) << run.err;
  EXPECT_NE(run.out.find("It happens"), std::string::npos) << run.out;
}

TEST(Cost, MeasuresThePresentFormBesideTheSoundOnes) {
  Folder folder;
  folder.write("a.py", kTable);
  RunResult run = elmcart("probe cost --format json --rounds 3 --threads 2 TideTable .", folder.path());
  ASSERT_EQ(run.exitCode, 0) << run.err;
  Json cost = jsonOf(run);
  std::map<std::string, double> byOne;
  for (const Json& form : cost["forms"]) {
    EXPECT_EQ(form["points"].size(), 2u);
    byOne[form["form"]] = form["points"][0]["medianNanoseconds"];
  }
  ASSERT_TRUE(byOne.count("as it is") && byOne.count("lock at each access") && byOne.count("injected field"));
  // A lock is never free.
  EXPECT_GT(byOne["lock at each access"], byOne["injected field"]);
  EXPECT_GT(cost["firstNanoseconds"], 0);
  EXPECT_NE(elmcart("probe cost --rounds 3 --threads 2 TideTable .", folder.path()).out.find("The first access in a process takes"), std::string::npos);
}

}  // namespace
}  // namespace elmcart
