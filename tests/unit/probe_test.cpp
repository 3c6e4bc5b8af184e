// What a probe puts into the code, and what it means for findings.
#include <gtest/gtest.h>

#include "assess/evidence.h"
#include "probe/race_plan.h"
#include "support/folder.h"

namespace elmcart {
namespace {

std::unique_ptr<Analysis> judgedTree(const Folder& folder) {
  auto a = analyse(folder.path(), Config{}, 1, true);
  EXPECT_TRUE(a.ok());
  return std::move(*a);
}

// The file as the harness of the first race of that scenario leaves it.
std::string widenedText(const Folder& folder, const std::string& file, ProbeScenario scenario) {
  auto a = judgedTree(folder);
  for (size_t i = 0; i < a->survey.entities.size(); ++i)
    for (Race& race : racesOf(*a, i)) {
      if (race.scenario != scenario || race.cannotGoWrong) continue;
      race.plan.root = folder.path();
      WriterFiles files(folder.path());
      auto harness = a->program.languageOf.front()->harness(files)->write(race.plan);
      if (!harness) return "refused: " + harness.error().reason;
      std::vector<FileEdit> edits;
      for (const FileEdit& edit : harness->edits)
        if (edit.path == file) edits.push_back(edit);
      auto text = applyEdits(folder.read(file), edits);
      return text ? *text : "overlapping";
    }
  return "no race";
}

struct Widened {
  const char* name;
  const char* file;
  const char* text;
  ProbeScenario scenario;
  std::vector<const char*> written;
};
void PrintTo(const Widened& widened, std::ostream* out) { *out << widened.name; }

class HarnessWidens : public testing::TestWithParam<Widened> {};

TEST_P(HarnessWidens, WhatIsWrittenBack) {
  const Widened& widened = GetParam();
  Folder folder;
  folder.write(widened.file, widened.text);
  std::string text = widenedText(folder, widened.file, widened.scenario);
  for (const char* wanted : widened.written) EXPECT_NE(text.find(wanted), std::string::npos) << wanted << "\n--- in\n" << text;
}

INSTANTIATE_TEST_SUITE_P(All, HarnessWidens, testing::Values(
    Widened{"cpp_increment", "a.cpp", "#include <thread>\nint boats = 0;\nvoid enter() { boats++; }\nvoid load(int crates) { boats += crates; }\nvoid open() {\n  std::thread one(enter);\n  std::thread two(enter);\n  one.join();\n  two.join();\n}\n", ProbeScenario::Change, {"void enter() { boats = elmcart_probe::gap(boats + 1); }"}},
    Widened{"java_compound", "A.java", "class Scale {\n    private static int crates;\n    static void load(int more) {\n        crates += more;\n    }\n    static void open() {\n        new Thread(() -> load(1)).start();\n        new Thread(() -> load(2)).start();\n    }\n}\n", ProbeScenario::Change, {"crates = elmcartprobe.Probe.gap(crates + (more));", "Scale.load(1);"}},
    Widened{"python_assignment", "a.py", "import threading\n\nboats = 0\n\n\ndef enter():\n    global boats\n    boats = boats + 1\n\n\ndef open_office():\n    threading.Thread(target=enter).start()\n    threading.Thread(target=enter).start()\n", ProbeScenario::Change, {"    boats = __import__(\"elmcart_probe\").gap(boats + 1)\n"}},
    Widened{"go_increment", "a.go", "package a\n\nvar boats int\n\nfunc enter() {\n\tboats++\n}\n\nfunc open() {\n\tgo enter()\n\tgo enter()\n}\n", ProbeScenario::Change, {"\tboats = elmcartGap(boats + 1)\n"}},
    Widened{"cpp_unique", "a.cpp", "#include <memory>\nclass Desk {\n public:\n  static Desk& get() {\n    if (!desk_) desk_.reset(new Desk);\n    return *desk_;\n  }\n private:\n  Desk() {}\n  static std::unique_ptr<Desk> desk_;\n};\nstd::unique_ptr<Desk> Desk::desk_;\n", ProbeScenario::Creation, {"desk_.reset(elmcart_probe::gap(new Desk))"}},
    Widened{"csharp_coalesce", "A.cs", "sealed class Desk\n{\n    static Desk desk;\n    Desk() { }\n    public static Desk Get()\n    {\n        if (desk == null) desk = new Desk();\n        return desk;\n    }\n}\n", ProbeScenario::Creation, {"desk = ElmcartProbe.Gap(new Desk());", "ElmcartProbe.Race(() => { return Desk.Get(); });"}}),
    [](const auto& info) { return std::string(info.param.name); });

TEST(Evidence, RaisesAndLowersByOneStep) {
  Folder folder;
  folder.write("a.cpp", "int depth() { return 1; }\n");
  auto a = judgedTree(folder);
  Finding f;
  f.fingerprint = "0123456789abcdef";
  f.check = "thread.lost-update";
  Seen seen;
  seen.fingerprint = f.fingerprint;
  seen.code = codeNumber(a->program, codeOf(a->program, f));
  seen.runs = 20;
  auto after = [&](Sureness before, int happened, bool changed = false) {
    std::vector<Finding> all{f};
    all.front().setSureness(before);
    seen.happened = happened;
    Seen told = seen;
    if (changed) told.code = "0";
    applyEvidence(a->program, {told}, all);
    EXPECT_EQ(all.front().seen.old, changed);
    return all.front().sureness;
  };
  EXPECT_EQ(after(Sureness::Likely, 3), Sureness::Certain);
  EXPECT_EQ(after(Sureness::Possible, 20), Sureness::Possible);
  EXPECT_EQ(after(Sureness::Certain, 0), Sureness::Likely);
  EXPECT_EQ(after(Sureness::Likely, 0), Sureness::Possible);
  EXPECT_EQ(after(Sureness::Possible, 0), Sureness::Possible);
  EXPECT_EQ(after(Sureness::Likely, 20, true), Sureness::Likely);
  EXPECT_EQ(after(Sureness::Likely, 0, true), Sureness::Likely);
}

}  // namespace
}  // namespace elmcart
