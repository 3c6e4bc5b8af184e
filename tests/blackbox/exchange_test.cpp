// Findings in other forms, and only those that a change brings.
#include <set>

#include "blackbox/program.h"

namespace elmcart {
namespace {

constexpr const char* kRacy = "#include <thread>\nint tides = 0;\nvoid count() { tides = tides + 1; }\nint main() {\n  std::thread other(count);\n  count();\n  other.join();\n}\n";

// What the standard asks of each result (SARIF 2.1.0, 3.27) and of each place in it (3.28, 3.29, 3.30).
TEST(Exchange, SarifHoldsWhatTheStandardAsks) {
  Folder folder;
  folder.write("a b/tides.cpp", kRacy);
  auto log = jsonOf(elmcart("assess --format sarif " + folder.path()));
  EXPECT_EQ(log["version"], "2.1.0");
  ASSERT_EQ(log["runs"].size(), 1u);
  const auto& run = log["runs"][0];
  EXPECT_EQ(run["tool"]["driver"]["name"], "elmcart");
  std::set<std::string> ids;
  for (const auto& rule : run["tool"]["driver"]["rules"]) {
    EXPECT_TRUE(ids.insert(rule["id"]).second) << rule["id"];
    for (const char* key : {"shortDescription", "fullDescription", "help"}) EXPECT_TRUE(rule[key]["text"].is_string());
  }
  ASSERT_FALSE(run["results"].empty());
  for (const auto& result : run["results"]) {
    EXPECT_EQ(run["tool"]["driver"]["rules"][result["ruleIndex"].get<size_t>()]["id"], result["ruleId"]);
    EXPECT_TRUE(std::set<std::string>({"error", "warning", "note"}).count(result["level"]));
    EXPECT_FALSE(result["message"]["text"].get<std::string>().empty());
    const auto& place = result["locations"][0]["physicalLocation"];
    EXPECT_EQ(place["artifactLocation"]["uri"], "a%20b/tides.cpp");
    EXPECT_GE(place["region"]["startLine"].get<int>(), 1);
    EXPECT_TRUE(run["originalUriBaseIds"].contains(place["artifactLocation"]["uriBaseId"].get<std::string>()));
    for (const auto& flow : result["codeFlows"])
      for (const auto& thread : flow["threadFlows"]) EXPECT_FALSE(thread["locations"].empty());
    EXPECT_EQ(result["partialFingerprints"]["elmcart/1"].get<std::string>().size(), 16u);
  }
}

// Does the document keep to the schema? With node and the tests' npm packages.
void expectValid(const std::string& schema, const std::string& document) {
  Folder folder;
  folder.write("document.json", document);
  auto run = runCommand("node " ELMCART_TEST_TOOLS "/validate.mjs " + schema + " " + (folder / "document.json"), {});
  ASSERT_TRUE(run.ok());
  EXPECT_EQ(run->exitCode, 0) << schema << "\n" << run->out << run->err;
}

bool haveTools() { return fs::exists(ELMCART_TEST_TOOLS "/node_modules/ajv"); }

TEST(Exchange, SarifKeepsToTheSchemaOfTheStandard) {
  if (!haveTools()) GTEST_SKIP() << "scripts/setup_tests.sh brings the validator";
  for (const char* tree : {ELMCART_DEMO "/harbour-office", ELMCART_SAMPLES}) {
    RunResult run = elmcart(std::string("assess --format sarif ") + tree);
    expectValid("sarif", run.out);
    // The validator does find what is wrong.
    auto log = jsonOf(run);
    log["runs"][0]["results"][0]["level"] = "awful";
    Folder folder;
    folder.write("document.json", log.dump());
    auto broken = runCommand("node " ELMCART_TEST_TOOLS "/validate.mjs sarif " + (folder / "document.json"), {});
    ASSERT_TRUE(broken.ok());
    EXPECT_EQ(broken->exitCode, 1);
    EXPECT_NE(broken->out.find("/runs/0/results/0/level"), std::string::npos) << broken->out;
  }
}

TEST(Exchange, JsonKeepsToOurOwnSchemas) {
  if (!haveTools()) GTEST_SKIP() << "scripts/setup_tests.sh brings the validator";
  for (const std::string tree : {ELMCART_DEMO "/harbour-office", ELMCART_SAMPLES})
    for (const std::string command : {"survey", "assess"}) expectValid(ELMCART_DOCS "/schemas/" + command + "-1.json", elmcart(command + " --format json " + tree).out);
  if (Folder folder; true) {
    folder.write("tides.py", "class TideTable:\n    _table = None\n\n    def __init__(self):\n        self.heights = [3]\n\n    @classmethod\n    def table(cls):\n        if cls._table is None:\n            cls._table = cls()\n        return cls._table\n\n\ndef depth():\n    return TideTable.table().heights[0]\n");
    expectValid(ELMCART_DOCS "/schemas/race-1.json", elmcart("probe race --format json --runs 2 --sound-runs 2 TideTable .", folder.path()).out);
    expectValid(ELMCART_DOCS "/schemas/watch-1.json", elmcart("probe watch --format json --run \"python3 -c 'import tides; tides.depth()'\" TideTable .", folder.path()).out);
    expectValid(ELMCART_DOCS "/schemas/cost-1.json", elmcart("probe cost --format json --rounds 3 --threads 1 TideTable .", folder.path()).out);
    if (fs::exists(folder / "elmcart-evidence.json")) expectValid(ELMCART_DOCS "/schemas/evidence-1.json", folder.read("elmcart-evidence.json"));
  }
  expectValid(ELMCART_DOCS "/schemas/reach-1.json", elmcart("reach --format json BerthBook " ELMCART_DEMO "/harbour-office").out);
  expectValid(ELMCART_DOCS "/schemas/reach-ways-1.json", elmcart("reach --format json --from HarbourMaster BerthBook " ELMCART_DEMO "/harbour-office").out);
}

TEST(Exchange, ARaceHasAFlowForEachThread) {
  Folder folder;
  folder.write("tides.cpp", kRacy);
  auto log = jsonOf(elmcart("assess --format sarif " + folder.path()));
  bool seen = false;
  for (const auto& result : log["runs"][0]["results"]) {
    if (result["ruleId"] != "thread.lost-update") continue;
    std::set<std::string> threads;
    for (const auto& thread : result["codeFlows"][0]["threadFlows"]) threads.insert(thread["id"]);
    EXPECT_EQ(threads, (std::set<std::string>{"before", "thread 1", "thread 2"}));
    seen = true;
  }
  EXPECT_TRUE(seen);
}

std::set<std::string> fingerprints(const Folder& folder) {
  std::set<std::string> out;
  auto assessed = jsonOf(elmcart("assess --format json " + folder.path()));
  for (const auto& f : assessed["findings"]) EXPECT_TRUE(out.insert(f["fingerprint"]).second);
  return out;
}

TEST(Exchange, FingerprintsSurviveMovedLines) {
  Folder folder;
  folder.write("tides.cpp", kRacy);
  std::set<std::string> before = fingerprints(folder);
  EXPECT_FALSE(before.empty());
  folder.write("tides.cpp", "// a harbour\n\n\nint unrelated() { return 3; }\n" + std::string(kRacy));
  EXPECT_EQ(fingerprints(folder), before);
}

TEST(Exchange, MarkdownAndCsvNameEachFinding) {
  Folder folder;
  folder.write("tides.cpp", kRacy);
  size_t findings = jsonOf(elmcart("assess --format json " + folder.path()))["findings"].size();
  RunResult csv = elmcart("assess --format csv " + folder.path());
  EXPECT_EQ(static_cast<size_t>(std::count(csv.out.begin(), csv.out.end(), '\n')), findings + 1) << csv.out;
  RunResult markdown = elmcart("assess --format markdown " + folder.path());
  EXPECT_NE(markdown.out.find("thread.lost-update"), std::string::npos);
  EXPECT_NE(markdown.out.find("## " + std::to_string(findings) + "."), std::string::npos) << markdown.out;
}

TEST(Exchange, SinceARevisionOnlyWhatIsNew) {
  Folder folder;
  folder.write("office/tides.cpp", kRacy);
  auto git = [&](const std::string& what) {
    RunOptions options;
    options.folder = folder.path();
    auto run = runCommand("git -c user.name=Keeper -c user.email=keeper@harbour.example -c init.defaultBranch=main " + what, options);
    EXPECT_TRUE(run.ok() && run->exitCode == 0) << what;
  };
  git("init -q .");
  git("add -A");
  git("commit -q -m tides");
  std::string office = folder / "office";
  RunResult none = elmcart("assess --since HEAD --gate 0 --format json " + office);
  EXPECT_EQ(none.exitCode, 0) << none.out;
  EXPECT_TRUE(jsonOf(none)["findings"].empty());
  folder.write("office/tides.cpp", "// moved\n\n" + std::string(kRacy));
  folder.write("office/moons.cpp", "#include <thread>\nint moons = 0;\nvoid rise() { moons = moons + 1; }\nvoid night() { std::thread other(rise); rise(); other.join(); }\n");
  RunResult some = elmcart("assess --since HEAD --gate 0 --format json " + office);
  EXPECT_EQ(some.exitCode, 1);
  auto findings = jsonOf(some)["findings"];
  EXPECT_FALSE(findings.empty());
  for (const auto& f : findings) EXPECT_EQ(f["file"], "moons.cpp") << f.dump();
  RunResult wrong = elmcart("assess --since nowhere " + office);
  EXPECT_EQ(wrong.exitCode, 2);
  EXPECT_NE(wrong.err.find("nowhere: no such revision"), std::string::npos) << wrong.err;
  Folder bare;
  bare.write("tides.cpp", kRacy);
  EXPECT_EQ(elmcart("assess --since HEAD " + bare.path()).exitCode, 2);
}

TEST(Exchange, ALedgerOfTodayLeavesOnlyWhatIsNew) {
  Folder folder;
  folder.write("tides.cpp", kRacy);
  EXPECT_EQ(elmcart("assess --format ledger " + folder.path()).exitCode, 2);
  EXPECT_EQ(elmcart("assess --format ledger --because 'as it \"stands\"' --out " + (folder / "ledger.toml") + " " + folder.path()).exitCode, 0);
  folder.write("elmcart.toml", "ledger = \"ledger.toml\"\n");
  RunResult quiet = elmcart("assess --gate 0 " + folder.path());
  EXPECT_EQ(quiet.exitCode, 0) << quiet.out;
  folder.write("tides.cpp", std::string(kRacy) + "int moons = 0;\nvoid rise() { moons = moons + 1; }\n");
  RunResult loud = elmcart("assess --gate 0 --format csv " + folder.path());
  EXPECT_EQ(loud.exitCode, 1) << loud.out;
  EXPECT_NE(loud.out.find(",moons,"), std::string::npos) << loud.out;
  EXPECT_EQ(loud.out.find(",tides,"), std::string::npos) << loud.out;
}

TEST(Exchange, ConfigurationIsFoundInAFolderAbove) {
  Folder folder;
  folder.write("elmcart.toml", "single = [\"Wharfinger\"]\n");
  folder.write("quay/north/wharf.cpp", "class Wharfinger {\n public:\n  void walk() {}\n};\nvoid day() { Wharfinger one; Wharfinger two; one.walk(); two.walk(); }\n");
  RunResult run = elmcart("assess --format csv " + (folder / "quay/north"));
  EXPECT_NE(run.out.find("single.meant-single"), std::string::npos) << run.out;
}

TEST(Exchange, LayersMustBeNamedRight) {
  Folder folder;
  folder.write("elmcart.toml", "[[layer]]\nname = \"hall\"\nfiles = [\"hall/**\"]\nmay-reach = [\"boks\"]\n");
  RunResult run = elmcart("assess " + folder.path());
  EXPECT_EQ(run.exitCode, 2);
  EXPECT_NE(run.err.find("the layer 'hall' may reach 'boks', and no layer is called that"), std::string::npos) << run.err;
}

}  // namespace
}  // namespace elmcart
