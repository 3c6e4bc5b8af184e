// How sure a check is of what it tells, on small programs: one fact more makes a finding likely, possible, or none.
#include <gtest/gtest.h>

#include "assess/analysis.h"
#include "support/folder.h"

namespace elmcart {
namespace {

enum class Told { No, Possible, Likely };

struct Judged {
  const char* name;
  const char* check;
  std::map<std::string, std::string> files;
  Told told;
};

void PrintTo(const Judged& c, std::ostream* out) { *out << c.name; }

class SurenessOf : public testing::TestWithParam<Judged> {};

TEST_P(SurenessOf, AsStated) {
  const Judged& c = GetParam();
  Folder folder;
  for (const auto& [path, text] : c.files) folder.write(path, text);
  auto a = analyse(folder.path(), Config{}, 1, true);
  ASSERT_TRUE(a.ok());
  Told told = Told::No;
  for (const Finding& f : (*a)->assessment.findings)
    if (f.check == c.check) told = std::max(told, f.sureness == Sureness::Possible ? Told::Possible : Told::Likely);
  EXPECT_EQ(static_cast<int>(told), static_cast<int>(c.told));
}

// A second thread that asks, and a setter that the first calls.
std::string switchIn(const std::string& use) {
  return "#include <thread>\nstatic bool g_loud = false;\nvoid setLoud(bool loud) { g_loud = loud; }\nvoid tell(const char*);\nvoid work() { " + use +
         " }\nint main(int n, char**) { std::thread t(work); while (n-- > 0) setLoud(n > 2); t.join(); }\n";
}

// What is kept by a class for quick use, asked for by two threads.
std::string keptIn(const std::string& value) {
  return "using System.Threading;\npublic interface IRoster { void Enter(string name); }\npublic class Roster : IRoster { int n; public void Enter(string name) { n++; } }\n"
         "public static class Cupboard { static IRoster kept = new Roster(); public static object Find(System.Type type) { return kept; } }\n"
         "public static class Quick { static IRoster roster; public static IRoster Roster { get { if (roster == null) roster = " + value + "; return roster; } } }\n"
         "public class Watch { static void Go() { Quick.Roster.Enter(\"one\"); } public static void Main() { new Thread(Go).Start(); new Thread(Go).Start(); } }\n";
}

const char* kLampLog = "public class LampLog {\n  static Level level = Level.ALL;\n  static void put(Level next) { level = next; }\n  static void tell(String line, Level one) { if (one.compareTo(level) > 0) System.out.println(line); }\n}\nenum Level { ALL, LOUD }\n";
std::string lampTests(const std::string& second) {
  return "import org.junit.Test;\npublic class LampLogTest {\n  @Test public void all() { LampLog.level = Level.ALL; LampLog.tell(\"lit\", Level.LOUD); }\n  @Test public void few() { " + second + " }\n}\n";
}

// A lock around what one function does, and a setter without it.
std::string seedIn(const std::string& caller) {
  return "public final class Seed {\n  private static volatile long seed;\n  public static void set(long value) { seed = value; }\n"
         "  public static long get() { synchronized (Seed.class) { if (seed == 0) { seed = System.nanoTime(); Seed.class.notifyAll(); } return seed; } }\n"
         "  static void begin() { new Thread(() -> get()).start(); }\n" + caller + "}\n";
}

// Of two programs, what the one does first does not meet the thread that only callers from outside start.
const char* kHosted =
    "class Gate {\n  static java.util.ArrayList<String> rows = new java.util.ArrayList<>();\n  static void fill(String row) { rows.add(row); }\n  static int count() { return rows.size(); }\n}\n"
    "class Desk { public static void main(String[] a) { new Thread(() -> System.out.println(\"up\")).start(); Gate.fill(a[0]); } }\n";

INSTANTIATE_TEST_SUITE_P(
    Facts, SurenessOf,
    testing::Values(
        Judged{"ASwitch", "thread.unguarded-state", {{"a.cpp", switchIn("if (g_loud) tell(\"lit\");")}}, Told::Possible},
        Judged{"AFlagThatALoopWaitsFor", "thread.unguarded-state", {{"a.cpp", switchIn("while (!g_loud) tell(\"dark\");")}}, Told::Likely},
        Judged{"AFlagThatEndsALoop", "thread.unguarded-state", {{"a.cpp", switchIn("for (;;) { if (g_loud) break; tell(\"dark\"); }")}}, Told::Likely},
        Judged{"AChoice", "thread.unguarded-state", {{"a.cpp", "#include <thread>\nenum class Loud { no, yes };\nstatic Loud g_loud = Loud::no;\nvoid setLoud(Loud loud) { g_loud = loud; }\nvoid tell(const char*);\nvoid work() { if (g_loud == Loud::yes) tell(\"lit\"); }\nint main(int n, char**) { std::thread t(work); while (n-- > 0) setLoud(Loud::yes); t.join(); }\n"}}, Told::Possible},
        Judged{"ALocalOfTheProgramItself", "lifetime.local-address-stored", {{"a.cpp", "struct Hall { int n = 0; };\nHall* hall;\nvoid run() { Hall own; hall = &own; ++hall->n; }\nvoid serve() { run(); }\nint main() { run(); }\n"}}, Told::Possible},
        Judged{"ALocalThatEndsBefore", "lifetime.local-address-stored", {{"a.cpp", "struct Hall { int n = 0; };\nHall* hall;\nvoid run() { Hall own; hall = &own; ++hall->n; }\nvoid more();\nint main() { run(); more(); }\n"}}, Told::Likely},
        Judged{"MadeTwice", "thread.unguarded-creation", {{"A.cs", keptIn("new Roster()")}}, Told::Likely},
        Judged{"LookedUpTwice", "thread.unguarded-creation", {{"A.cs", keptIn("(IRoster)Cupboard.Find(typeof(IRoster))")}}, Told::No},
        Judged{"LookedUpTwiceIsNoRace", "thread.unguarded-state", {{"A.cs", keptIn("(IRoster)Cupboard.Find(typeof(IRoster))")}}, Told::No},
        Judged{"TestsThatEachSetItFirst", "coupling.test-leak", {{"LampLog.java", kLampLog}, {"LampLogTest.java", lampTests("LampLog.level = Level.LOUD; LampLog.tell(\"lit\", Level.ALL);")}}, Told::No},
        Judged{"ATestThatSeesWhatAnotherLeft", "coupling.test-leak", {{"LampLog.java", kLampLog}, {"LampLogTest.java", lampTests("LampLog.tell(\"lit\", Level.ALL); LampLog.level = Level.LOUD;")}}, Told::Likely},
        Judged{"TestsThatPutNothingLast", "coupling.test-leak", {{"LampLog.java", kLampLog}, {"LampLogTest.java", lampTests("LampLog.put(Level.LOUD); LampLog.put(Level.ALL); LampLog.put(null);")}}, Told::No},
        Judged{"ASetterThatNobodyCalls", "thread.mixed-guard", {{"Seed.java", seedIn("")}}, Told::Possible},
        Judged{"ASetterThatWorkCalls", "thread.mixed-guard", {{"Seed.java", seedIn("  static void work() { new Thread(() -> set(5)).start(); }\n")}}, Told::Likely},
        Judged{"AThreadThatNoProgramStarts", "thread.unguarded-state", {{"Desk.java", std::string(kHosted) + "class Hosted { public Thread start() { Thread t = new Thread(() -> System.out.println(Gate.count())); t.start(); return t; } }\n"}}, Told::No},
        Judged{"AThreadThatTheProgramStarts", "thread.unguarded-state", {{"Desk.java", std::string(kHosted) + "class Hosted { public static void main(String[] a) { new Thread(() -> System.out.println(Gate.count())).start(); Gate.fill(a[0]); } }\n"}}, Told::Likely}),
    [](const auto& info) { return std::string(info.param.name); });

}  // namespace
}  // namespace elmcart
