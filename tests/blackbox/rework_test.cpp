// Rework as a user meets it: real builds and runs of both trees.
#include <fcntl.h>
#include <signal.h>
#include <spawn.h>
#include <sys/wait.h>

#include <random>
#include <thread>

#include "blackbox/program.h"

extern char** environ;

namespace elmcart {
namespace {

std::map<std::string, std::string> snapshot(const Folder& folder) {
  std::map<std::string, std::string> out;
  for (const auto& entry : fs::recursive_directory_iterator(folder.path()))
    if (entry.is_regular_file() && entry.path().string().find("/.elmcart/") == std::string::npos && entry.path().string().find("/.git/") == std::string::npos) out[fs::relative(entry.path(), folder.path()).string()] = folder.read(fs::relative(entry.path(), folder.path()).string());
  return out;
}

TEST(Rework, InjectsWritesAndTakesBack) {
  Folder folder;
  writeTinyProject(folder);
  auto before = snapshot(folder);
  RunResult run = elmcart("rework --retire --write --format json --patches " + (folder / "patches") + " --move inject Gauge " + folder.path());
  ASSERT_EQ(run.exitCode, 0) << run.out << run.err;
  auto json = jsonOf(run);
  EXPECT_EQ(json["finished"], true);
  for (const auto& step : json["steps"]) EXPECT_EQ(step["outcome"], "2 tests and 1 witness as before") << step;
  auto after = snapshot(folder);
  for (const auto& [path, text] : after) {
    if (path.find("patches/") == 0) continue;
    EXPECT_EQ(text.find("Gauge::get"), std::string::npos) << path;
  }
  EXPECT_NE(after["sluice.h"].find("explicit Sluice(Gauge& gauge)"), std::string::npos) << after["sluice.h"];
  EXPECT_NE(after["main.cpp"].find("Gauge gauge;"), std::string::npos) << after["main.cpp"];
  // The reworked tree builds and behaves as before, by our own hand too.
  RunOptions options;
  options.folder = folder.path();
  auto built = runCommand("g++ -std=c++17 -Wall -Werror -o /dev/null gauge.cpp sluice.cpp main.cpp && g++ -std=c++17 -o lock2 gauge.cpp sluice.cpp main.cpp && ./lock2 && rm lock2 results.xml", options);
  EXPECT_EQ(built->exitCode, 0) << built->err;
  EXPECT_EQ(built->out, "3 6 1\n");
  // The patches apply with git, one after the other, to the old tree.
  Folder fresh;
  writeTinyProject(fresh);
  options.folder = fresh.path();
  auto applied = runCommand("git init -q . && for p in " + (folder / "patches") + "/*.patch; do git apply $p || exit 1; done", options);
  EXPECT_EQ(applied->exitCode, 0) << applied->err;
  for (const char* name : {"gauge.h", "gauge.cpp", "sluice.h", "sluice.cpp", "main.cpp"}) EXPECT_EQ(fresh.read(name), after[name]) << name;
  // And all of it can be taken back.
  fs::remove_all(folder / "patches");
  EXPECT_EQ(elmcart("rework --undo " + folder.path()).exitCode, 0);
  EXPECT_EQ(snapshot(folder), before);
  EXPECT_EQ(elmcart("rework --undo " + folder.path()).exitCode, 1);
}

// A command in the folder, with git told who commits.
RunResult shell(const Folder& folder, const std::string& command, int seconds = 600) {
  RunOptions options;
  options.seconds = seconds;
  options.folder = folder.path();
  auto run = runCommand(command, options);
  EXPECT_TRUE(run.ok());
  return run ? *run : RunResult{};
}
void commitAll(const Folder& folder) {
  RunResult run = shell(folder, "git init -q -b main . && git config user.name Pilot && git config user.email pilot@harbour.example && git add -A && git commit -q -m start");
  ASSERT_EQ(run.exitCode, 0) << run.err;
}

// One commit a step, each of which builds and runs; the work tree is not touched.
TEST(Rework, LeavesItsStepsOnABranch) {
  Folder folder;
  writeTinyProject(folder);
  commitAll(folder);
  auto before = snapshot(folder);
  RunResult run = elmcart("rework --retire --branch injected --format json --move inject Gauge " + folder.path());
  ASSERT_EQ(run.exitCode, 0) << run.out << run.err;
  size_t steps = jsonOf(run)["steps"].size();
  EXPECT_NE(run.err.find(std::to_string(steps) + " commits on the new branch injected"), std::string::npos) << run.err;
  EXPECT_EQ(snapshot(folder), before);
  EXPECT_EQ(shell(folder, "git status --porcelain").out, "");
  EXPECT_EQ(shell(folder, "git rev-parse --abbrev-ref HEAD").out, "main\n");
  EXPECT_EQ(shell(folder, "git rev-list --count main..injected").out, std::to_string(steps) + "\n");
  EXPECT_NE(shell(folder, "git log -1 --format=%b injected").out.find("2 tests and 1 witness as before"), std::string::npos);
  RunResult each = shell(folder, "for c in $(git rev-list main..injected); do git checkout -q $c && g++ -std=c++17 -Wall -Werror -o lock gauge.cpp sluice.cpp main.cpp && ./lock || exit 1; done; git checkout -q main");
  EXPECT_EQ(each.exitCode, 0) << each.err;
  EXPECT_EQ(shell(folder, "git grep -c Gauge::get injected").exitCode, 1);
  // And the program says of the two revisions what our own hand said.
  RunResult alike = elmcart("confirm main injected", folder.path());
  EXPECT_EQ(alike.exitCode, 0) << alike.out << alike.err;
  EXPECT_NE(alike.out.find("Alike: 2 tests and 1 witness as before."), std::string::npos) << alike.out;
}

TEST(Rework, MakesNoBranchWhereSomethingIsInTheWay) {
  Folder folder;
  writeTinyProject(folder);
  RunResult run = elmcart("rework --branch injected --move inject Gauge " + folder.path());
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.err.find("is in no git repository"), std::string::npos) << run.err;
  commitAll(folder);
  folder.write("gauge.h", folder.read("gauge.h") + "\n");
  run = elmcart("rework --branch injected --move inject Gauge " + folder.path());
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.err.find("1 file is changed since the last commit (gauge.h)"), std::string::npos) << run.err;
  EXPECT_EQ(run.err.find("baseline"), std::string::npos) << "nothing is built before";
  shell(folder, "git checkout -q gauge.h");
  run = elmcart("rework --branch main --move inject Gauge " + folder.path());
  EXPECT_NE(run.err.find("main: is a branch already"), std::string::npos) << run.err;
  run = elmcart("confirm main nowhere", folder.path());
  EXPECT_EQ(run.exitCode, 3);
  EXPECT_NE(run.err.find("no such folder, and no revision either"), std::string::npos) << run.err;
}

// A test that only passes behind another one, and what the two share.
TEST(Rework, ConfirmTellsWhichTestsDependOnTheirOrder) {
  Folder folder;
  folder.write("mast.h", "#pragma once\nclass Mast {\n public:\n  static Mast& mast() {\n    static Mast m;\n    return m;\n  }\n  void raise() { flags_ = flags_ + 1; }\n  int flags() const { return flags_; }\n private:\n  Mast() = default;\n  int flags_ = 0;\n};\n");
  folder.write("tests/mast_test.cpp", "#include <gtest/gtest.h>\n#include \"../mast.h\"\nTEST(Mast, Raises) {\n  Mast::mast().raise();\n  EXPECT_EQ(Mast::mast().flags(), 1);\n}\nTEST(Mast, IsRaised) {\n  EXPECT_EQ(Mast::mast().flags(), 1);\n}\nTEST(Mast, Stands) {\n  EXPECT_GE(Mast::mast().flags(), 0);\n}\n");
  folder.write("elmcart.toml", "[build]\ncommands = [\"g++ -std=c++17 -o all tests/mast_test.cpp -lgtest -lgtest_main -pthread\"]\n[test]\ncommands = [\"./all --gtest_output=xml:results.xml\"]\nresults = [\"results.xml\"]\nalone = \"./all --gtest_filter=$ELMCART_TEST --gtest_output=xml:results.xml\"\nbaseline-runs = 1\n");
  RunResult run = elmcart("confirm . . --orders 6", folder.path());
  EXPECT_EQ(run.exitCode, 0) << run.err;
  EXPECT_NE(run.out.find("Mast.IsRaised: passed in the given order, failed in order"), std::string::npos) << run.out;
  EXPECT_NE(run.out.find("it shares Mast"), std::string::npos) << run.out;
  EXPECT_EQ(run.out.find("Mast.Stands:"), std::string::npos) << run.out;
  auto json = jsonOf(elmcart("confirm . . --orders 6 --format json", folder.path()));
  EXPECT_EQ(json["orders"]["before"]["orders"], 6);
  EXPECT_GE(json["orders"]["after"]["dependent"].size(), 1u);
  run = elmcart("confirm . . --alone", folder.path());
  EXPECT_EQ(run.exitCode, 0) << run.err;
  EXPECT_NE(run.out.find("Before: 1 test depends on what runs before, in 3 runs of one test each:\n  Mast.IsRaised: passed among the others, failed on its own; it shares Mast"), std::string::npos) << run.out;
  json = jsonOf(elmcart("confirm . . --alone --orders 6 --format json", folder.path()));
  EXPECT_EQ(json["orders"]["before"]["alone"], 3);
  EXPECT_NE(json["orders"]["before"]["dependent"][0]["how"].get<std::string>().find("; passed among the others"), std::string::npos);
}

TEST(Rework, ATestThatCannotBeRunAloneIsNoTestThatPassed) {
  Folder folder;
  folder.write("tide_test.cpp", "#include <gtest/gtest.h>\nTEST(Tide, Turns) {}\n");
  std::string config = "[build]\ncommands = [\"g++ -std=c++17 -o all tide_test.cpp -lgtest -lgtest_main -pthread\"]\n[test]\ncommands = [\"./all --gtest_output=xml:results.xml\"]\nresults = [\"results.xml\"]\nbaseline-runs = 1\n";
  folder.write("elmcart.toml", config);
  RunResult run = elmcart("confirm . . --alone", folder.path());
  EXPECT_EQ(run.exitCode, 2);
  EXPECT_NE(run.err.find("--alone needs the command that runs one test"), std::string::npos) << run.err;
  folder.write("elmcart.toml", config + "alone = \"true\"\n");
  run = elmcart("confirm . . --alone", folder.path());
  EXPECT_NE(run.out.find("Tide.Turns: the command test.alone did not run it"), std::string::npos) << run.out << run.err;
}

TEST(Rework, ProposeRunsNothingAndChangesNothing) {
  Folder folder;
  writeTinyProject(folder);
  folder.write("elmcart.toml", "[build]\ncommands = [\"touch " + (folder / "ran") + "\"]\n");
  auto before = snapshot(folder);
  RunResult run = elmcart("propose --diff --move inject Gauge " + folder.path());
  EXPECT_EQ(run.exitCode, 0) << run.err;
  EXPECT_NE(run.out.find("+  explicit Sluice(Gauge& gauge = Gauge::get()) : gauge_(gauge) {}"), std::string::npos) << run.out;
  EXPECT_EQ(snapshot(folder), before);
}

TEST(Rework, SaysWhenATreeDoesNotBuild) {
  Folder folder;
  writeTinyProject(folder);
  folder.write("main.cpp", "int main() { return nothing; }\n");
  RunResult run = elmcart("rework --move inject Gauge " + folder.path());
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.err.find("does not build as it is"), std::string::npos) << run.err;
}

TEST(Rework, EndsABuildThatHangs) {
  Folder folder;
  writeTinyProject(folder);
  folder.write("elmcart.toml", "[build]\ncommands = [\"sleep 1000 & sleep 1000\"]\nseconds = 1\n");
  auto start = std::chrono::steady_clock::now();
  RunResult run = elmcart("rework --move inject Gauge " + folder.path(), "", 60);
  EXPECT_LT(std::chrono::steady_clock::now() - start, std::chrono::seconds(20));
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.err.find("time limit"), std::string::npos) << run.err;
}

// The interpreter's own tracing module tells what the tests execute.
TEST(Rework, ConfirmTellsWhichChangedLinesNoTestExecutes) {
  Folder folder;
  for (const char* tree : {"a", "b", "c"}) {
    std::string t = tree;
    // b changes both functions, c only the one that no test calls.
    std::string enter = t == "b" ? "self.total = self.total + coins" : "self.total += coins", waste = t == "a" ? "self.total -= coins" : "self.total = self.total - coins";
    folder.write(t + "/ledger.py", "class Ledger:\n    def __init__(self):\n        self.total = 0\n\n    def enter(self, coins):\n        " + enter + "\n\n    def waste(self, coins):\n        " + waste + "\n");
    folder.write(t + "/tests/__init__.py", "");
    folder.write(t + "/tests/test_ledger.py", "import unittest\nfrom ledger import Ledger\n\n\nclass LedgerTest(unittest.TestCase):\n    def test_enters(self):\n        ledger = Ledger()\n        ledger.enter(3)\n        self.assertEqual(ledger.total, 3)\n");
    folder.write(t + "/traced.py", R"(import trace
import unittest

tracer = trace.Trace(count=1, trace=0)
runner = unittest.TextTestRunner(verbosity=2)
tracer.runfunc(lambda: runner.run(unittest.defaultTestLoader.discover("tests", top_level_dir=".")))
counts = tracer.results().counts
with open("lines.info", "w") as out:
    for name in sorted({name for name, _ in counts if name.endswith("ledger.py")}):
        executed = {line: times for (file, line), times in counts.items() if file == name}
        out.write(f"SF:{name}\n")
        for line in sorted(trace._find_executable_linenos(name)):
            out.write(f"DA:{line},{executed.get(line, 0)}\n")
        out.write("end_of_record\n")
)");
    folder.write(t + "/elmcart.toml", "[test]\ncommands = [\"python3 traced.py\"]\ncoverage = [\"*.info\"]\n");
  }
  auto confirm = [&](const std::string& rest) { return elmcart("confirm " + rest, folder.path()); };
  RunResult both = confirm("a b");
  EXPECT_EQ(both.exitCode, 0) << both.err;
  EXPECT_NE(both.out.find("1 test as before; 1 of 2 changed lines are executed by the tests; not ledger.py:9."), std::string::npos) << both.out;
  RunResult none = confirm("a c");
  EXPECT_NE(none.out.find("no changed line is executed by the tests; not ledger.py:9."), std::string::npos) << none.out;
  EXPECT_NE(none.out.find("No test executes what was changed"), std::string::npos) << none.out;
  EXPECT_EQ(jsonOf(confirm("a b --format json"))["coverage"]["executed"], 1);
  // Where none is written, that is said, and the rest goes on.
  folder.write("a/elmcart.toml", "[test]\ncommands = [\"python3 traced.py\"]\ncoverage = [\"other.info\"]\n");
  RunResult without = confirm("a b");
  EXPECT_EQ(without.exitCode, 0);
  EXPECT_NE(without.err.find("wrote no coverage file"), std::string::npos) << without.err;
}

TEST(Rework, ConfirmComparesTwoTreesTestByTest) {
  Folder a, b;
  writeTinyProject(a);
  writeTinyProject(b);
  EXPECT_EQ(elmcart("confirm " + a.path() + " " + b.path()).exitCode, 0);
  std::string sluice = b.read("sluice.cpp");
  b.write("sluice.cpp", sluice.replace(sluice.find("raise(3)"), 8, "raise(4)"));
  RunResult run = elmcart("confirm --format json " + a.path() + " " + b.path());
  EXPECT_EQ(run.exitCode, 1);
  auto json = jsonOf(run);
  EXPECT_EQ(json["alike"], false);
  std::set<std::string> names;
  for (const auto& d : json["differences"]) names.insert(d["name"].get<std::string>());
  EXPECT_EQ(names, (std::set<std::string>{"first", "second", "a passage"}));
}

// How often a run is killed: more where ELMCART_KILLS says so.
int kills(int otherwise) {
  const char* told = std::getenv("ELMCART_KILLS");
  return told ? std::atoi(told) : otherwise;
}

// The program, started with these arguments and left to run.
pid_t started(std::vector<std::string> arguments) {
  arguments.insert(arguments.begin(), ELMCART_PROGRAM);
  std::vector<char*> pointers;
  for (std::string& one : arguments) pointers.push_back(one.data());
  pointers.push_back(nullptr);
  pid_t child = 0;
  posix_spawn_file_actions_t actions;
  posix_spawn_file_actions_init(&actions);
  posix_spawn_file_actions_addopen(&actions, 1, "/dev/null", O_WRONLY, 0);
  posix_spawn_file_actions_addopen(&actions, 2, "/dev/null", O_WRONLY, 0);
  EXPECT_EQ(posix_spawn(&child, ELMCART_PROGRAM, &actions, nullptr, pointers.data(), environ), 0);
  posix_spawn_file_actions_destroy(&actions);
  return child;
}

// Scratch folders of killed runs are gone after the next run. Other tests may be killing theirs
// at the same time, so only those of these processes are looked for.
void expectNoStrayScratch(const Folder& origin, const std::set<pid_t>& killed) {
  elmcart("propose --quiet --move inject Gauge " + origin.path());
  for (const auto& entry : fs::directory_iterator(fs::temp_directory_path())) {
    std::string name = entry.path().filename().string();
    if (name.rfind("elmcart-scratch-", 0) != 0) continue;
    EXPECT_EQ(killed.count(static_cast<pid_t>(std::stol(name.substr(16)))), 0u) << name;
  }
}

// The program itself, killed while it writes: each file is whole, old or new,
// and --resume or --undo ends the job.
TEST(Rework, SurvivesBeingKilledAtAnyMoment) {
  Folder origin;
  writeTinyProject(origin);
  // Many files to write, so that the moments differ: users in files of their own.
  origin.write("elmcart.toml", "[build]\ncommands = [\"true\"]\n[test]\ncommands = [\"true\"]\nbaseline-runs = 1\n");
  for (int i = 0; i < 25; ++i) {
    std::string n = std::to_string(i);
    origin.write("user" + n + ".cpp", "#include \"gauge.h\"\nclass User" + n + " {\n public:\n  int look() { return Gauge::get().level(); }\n};\nint use" + n + "() { User" + n + " user; return user.look(); }\n");
  }
  auto before = snapshot(origin);
  // How long a whole run takes, and what it leaves.
  Folder whole;
  fs::copy(origin.path(), whole.path(), fs::copy_options::recursive);
  auto start = std::chrono::steady_clock::now();
  elmcart("rework --write --quiet --move inject Gauge " + whole.path());
  double seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
  auto after = snapshot(whole);
  ASSERT_NE(after, before);
  std::mt19937 random(20);
  int interrupted = 0;
  std::set<pid_t> killed;
  for (int i = 0; i < kills(12); ++i) {
    Folder folder;
    fs::copy(origin.path(), folder.path(), fs::copy_options::recursive);
    pid_t child = started({"rework", "--write", "--quiet", "--move", "inject", "Gauge", folder.path()});
    // Wait for the journal, then a random little while.
    for (int n = 0; n < 20000 && !fs::exists(folder / ".elmcart") && ::waitpid(child, nullptr, WNOHANG) == 0; ++n) std::this_thread::sleep_for(std::chrono::microseconds(200));
    std::this_thread::sleep_for(std::chrono::microseconds(random() % 30000));
    ::kill(child, SIGKILL);
    killed.insert(child);
    ::waitpid(child, nullptr, 0);
    auto now = snapshot(folder);
    for (const auto& [path, text] : before) EXPECT_TRUE(now[path] == text || now[path] == after[path]) << path;
    if (fs::exists(folder / ".elmcart/journal")) {
      ++interrupted;
      bool undo = i % 2 == 0;
      EXPECT_EQ(elmcart(std::string("rework ") + (undo ? "--undo " : "--resume ") + folder.path()).exitCode, 0);
      EXPECT_EQ(snapshot(folder), undo ? before : after);
    }
  }
  RecordProperty("interrupted", interrupted);
  RecordProperty("seconds", std::to_string(seconds));
  expectNoStrayScratch(origin, killed);
}

// The same while it commits: the repository is whole, the branch is there as a whole
// or as a beginning of it, and what is checked out is untouched.
// A signal ends the step that is under way; what was kept is written, and no scratch folder stays.
TEST(Rework, WritesWhatItKeptWhenItIsInterrupted) {
  for (int signal : {SIGINT, SIGTERM}) {
    Folder folder;
    writeTinyProject(folder);
    // The first step builds at once, the second would take very long.
    folder.write("elmcart.toml", "[build]\ncommands = [\"n=$(cat count || echo 0); echo $((n + 1)) > count; if [ $n -ge 2 ]; then touch " + folder.path() + "/slow; sleep 60; fi\"]\n[test]\ncommands = [\"true\"]\nbaseline-runs = 1\n");
    pid_t child = started({"rework", "--quiet", "--patches", folder / "patches", "--move", "inject", "Gauge", folder.path()});
    for (int n = 0; n < 3000 && !fs::exists(folder / "slow"); ++n) std::this_thread::sleep_for(std::chrono::milliseconds(10));
    ASSERT_TRUE(fs::exists(folder / "slow"));
    auto asked = std::chrono::steady_clock::now();
    ::kill(child, signal);
    int status = 0;
    ::waitpid(child, &status, 0);
    EXPECT_LT(std::chrono::steady_clock::now() - asked, std::chrono::seconds(10));
    EXPECT_TRUE(WIFEXITED(status));
    EXPECT_EQ(WEXITSTATUS(status), 128 + signal);
    size_t patches = 0;
    for (const auto& entry : fs::directory_iterator(folder / "patches")) patches += entry.path().extension() == ".patch";
    EXPECT_EQ(patches, 1u);
    for (const auto& entry : fs::directory_iterator(fs::temp_directory_path())) EXPECT_EQ(entry.path().filename().string().find("elmcart-scratch-" + std::to_string(child) + "-"), std::string::npos);
  }
}

// The scratch copy holds what is read: what .gitignore leaves out only where it is honoured.
TEST(Rework, CopiesWhatGitIgnoresWhereThatIsRead) {
  Folder folder;
  writeTinyProject(folder);
  folder.write(".gitignore", "main.cpp\n");
  EXPECT_NE(elmcart("rework --quiet --move inject Gauge .", folder.path()).exitCode, 0);
  folder.write("elmcart.toml", "[read]\ngitignore = false\n" + folder.read("elmcart.toml"));
  EXPECT_EQ(elmcart("rework --quiet --move inject Gauge .", folder.path()).exitCode, 0);
}

TEST(Rework, SurvivesBeingKilledWhileItCommits) {
  Folder origin;
  writeTinyProject(origin);
  origin.write("elmcart.toml", "[build]\ncommands = [\"true\"]\n[test]\ncommands = [\"true\"]\nbaseline-runs = 1\n");
  for (int i = 0; i < 8; ++i) {
    std::string n = std::to_string(i);
    origin.write("user" + n + ".cpp", "#include \"gauge.h\"\nclass User" + n + " {\n public:\n  int look() { return Gauge::get().level(); }\n};\nint use" + n + "() { User" + n + " user; return user.look(); }\n");
  }
  commitAll(origin);
  Folder whole;
  fs::copy(origin.path(), whole.path(), fs::copy_options::recursive);
  auto start = std::chrono::steady_clock::now();
  ASSERT_EQ(elmcart("rework --branch injected --quiet --move inject Gauge " + whole.path()).exitCode, 0);
  auto took = std::chrono::duration_cast<std::chrono::microseconds>(std::chrono::steady_clock::now() - start).count();
  std::string all = shell(whole, "git rev-list --count main..injected").out;
  std::mt19937 random(21);
  int begun = 0;
  std::set<pid_t> killed;
  for (int i = 0; i < kills(12); ++i) {
    Folder folder;
    fs::copy(origin.path(), folder.path(), fs::copy_options::recursive);
    pid_t child = started({"rework", "--branch", "injected", "--quiet", "--move", "inject", "Gauge", folder.path()});
    // Most of the time goes before the first commit: half of the kills come at the very end.
    auto wait = i % 2 == 0 ? took - random() % (took / 5) : random() % took;
    std::this_thread::sleep_for(std::chrono::microseconds(wait));
    ::kill(child, SIGKILL);
    killed.insert(child);
    ::waitpid(child, nullptr, 0);
    EXPECT_EQ(shell(folder, "git fsck --no-dangling --no-progress").exitCode, 0);
    EXPECT_EQ(shell(folder, "git status --porcelain").out, "") << "what is checked out is as it was";
    EXPECT_EQ(shell(folder, "git rev-parse --abbrev-ref HEAD").out, "main\n");
    bool there = shell(folder, "git rev-parse -q --verify injected").exitCode == 0;
    begun += there;
    size_t commits = there ? std::stoul(shell(folder, "git rev-list --count main..injected").out) : 0;
    EXPECT_LE(commits, std::stoul(all));
    // It can be made again under another name.
    RunResult again = elmcart("rework --branch second --quiet --move inject Gauge " + folder.path());
    EXPECT_EQ(again.exitCode, 0) << again.err;
    EXPECT_EQ(shell(folder, "git rev-list --count main..second").out, all);
  }
  RecordProperty("begun", begun);
  expectNoStrayScratch(origin, killed);
}

TEST(Demo, ReworksTheBerthBookUnderTheOfficesTests) {
  Folder folder;
  // Built some thirty times: by the compiler and linker that take the least time, where they are there (CMake reads these).
  bool quick = shell(folder, "command -v clang++-16 && command -v mold").exitCode == 0;
  std::string with = quick ? "CC=clang-16 CXX=clang++-16 CXXFLAGS=-g0 LDFLAGS=-fuse-ld=mold " : "";
  RunResult run = shell(folder, with + ELMCART_PROGRAM " demo out", 850);
  EXPECT_EQ(run.exitCode, 0) << run.out << run.err;
  auto json = nlohmann::json::parse(folder.read("out/rework.json"));
  EXPECT_EQ(json["finished"], true);
  EXPECT_EQ(json["byHand"].size(), 0u);
  for (const auto& step : json["steps"]) EXPECT_EQ(step["kept"], true) << step["title"];
  EXPECT_EQ(json["after"]["places that fetch it"], 0);
  for (const auto& entry : fs::recursive_directory_iterator(folder / "out/harbour-office-reworked"))
    if (entry.is_regular_file()) {
      std::string text = folder.read("out/harbour-office-reworked/" + fs::relative(entry.path(), folder / "out/harbour-office-reworked").string());
      EXPECT_EQ(text.find("BerthBook::get"), std::string::npos) << entry.path();
    }
  for (const char* name : {"survey.txt", "survey.json", "survey.csv", "assess.txt", "assess.json", "reach.txt", "reach.svg", "reach.png", "explain.txt", "propose.txt", "rework.txt", "report.html"})
    EXPECT_GT(folder.read(std::string("out/") + name).size(), 200u) << name;
}

}  // namespace
}  // namespace elmcart
