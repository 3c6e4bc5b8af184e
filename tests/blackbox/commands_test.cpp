// The commands as a user meets them: outputs, exit codes, help, misspellings.
#include "blackbox/program.h"

namespace elmcart {
namespace {

const std::string kOffice = std::string(ELMCART_DEMO) + "/harbour-office";

TEST(Commands, TellTheirVersionAndHelp) {
  EXPECT_EQ(elmcart("--version").exitCode, 0);
  RunResult help = elmcart("--help");
  EXPECT_EQ(help.exitCode, 0);
  for (const char* name : {"init", "survey", "assess", "reach", "explain", "probe", "propose", "rework", "confirm", "report", "demo"}) {
    EXPECT_NE(help.out.find(name), std::string::npos) << name;
    RunResult own = elmcart(std::string(name) + " --help");
    EXPECT_EQ(own.exitCode, 0) << name;
    EXPECT_NE(own.out.find("examples:\n  elmcart " + std::string(name)), std::string::npos) << own.out;
  }
  EXPECT_EQ(elmcart("").exitCode, 2);
}

TEST(Commands, AnswerMisspellingsWithTheNearestRightNames) {
  RunResult command = elmcart("survay");
  EXPECT_EQ(command.exitCode, 2);
  EXPECT_NE(command.err.find("did you mean survey?"), std::string::npos) << command.err;
  RunResult option = elmcart("survey --frmat json " + kOffice);
  EXPECT_EQ(option.exitCode, 2);
  EXPECT_NE(option.err.find("--format"), std::string::npos) << option.err;
  RunResult check = elmcart("explain thread.unguarded-creaton");
  EXPECT_EQ(check.exitCode, 2);
  EXPECT_NE(check.err.find("thread.unguarded-creation"), std::string::npos) << check.err;
  RunResult entity = elmcart("reach BerthBok " + kOffice);
  EXPECT_EQ(entity.exitCode, 2);
  EXPECT_NE(entity.err.find("BerthBook"), std::string::npos) << entity.err;
  RunResult format = elmcart("survey --format jsn " + kOffice);
  EXPECT_EQ(format.exitCode, 2);
  EXPECT_NE(format.err.find("did you mean json?"), std::string::npos) << format.err;
}

TEST(Commands, SurveyJsonHasTheAgreedKeys) {
  auto json = jsonOf(elmcart("survey --format json " + kOffice));
  EXPECT_EQ(json["schema"], "elmcart.survey/1");
  EXPECT_EQ(json["unread"]["files"], 0);
  bool found = false;
  for (const auto& e : json["entities"]) {
    for (const char* key : {"id", "name", "kind", "language", "file", "line", "type", "creation", "guard", "enforced", "harmless", "accessPoints", "consumers"}) EXPECT_TRUE(e.contains(key)) << key;
    if (e["name"] != "BerthBook") continue;
    found = true;
    EXPECT_EQ(e["id"], "office::BerthBook");
    EXPECT_EQ(e["kind"], "singleton");
    EXPECT_EQ(e["file"], "src/berth_book.h");
    EXPECT_EQ(e["creation"], "lazy");
    EXPECT_EQ(e["guard"], "none");
    EXPECT_EQ(e["enforced"], true);
    EXPECT_GT(e["consumers"].size(), 20u);
  }
  EXPECT_TRUE(found);
}

TEST(Commands, GiveTheSameOutputForAnyNumberOfThreads) {
  EXPECT_EQ(elmcart("survey --all --format json -j 1 " + kOffice).out, elmcart("survey --all --format json -j 8 " + kOffice).out);
  EXPECT_EQ(elmcart("assess --format json -j 1 " + kOffice).out, elmcart("assess --format json -j 8 " + kOffice).out);
}

TEST(Commands, AssessFindsWhatWasPlantedInTheOfficeAndNothingElse) {
  auto json = jsonOf(elmcart("assess --format json " + kOffice));
  std::ifstream in(kOffice + "/planted.json");
  auto manifest = nlohmann::json::parse(in);
  std::set<std::string> planted, found;
  for (const auto& row : manifest["planted"]) planted.insert(row["check"].get<std::string>() + " " + row["entity"].get<std::string>());
  for (const auto& row : json["findings"]) found.insert(row["check"].get<std::string>() + " " + row["entity"].get<std::string>());
  EXPECT_EQ(found, planted);
  for (const auto& near : manifest["mustNotBeFound"])
    for (const auto& row : json["findings"]) EXPECT_NE(row["entity"], near["name"]);
}

TEST(Commands, GateSetsTheExitCode) {
  EXPECT_EQ(elmcart("assess --gate 50 " + kOffice).exitCode, 1);
  EXPECT_EQ(elmcart("assess --gate 99 " + kOffice).exitCode, 0);
}

TEST(Commands, ReachDrawsFigures) {
  Folder folder;
  EXPECT_EQ(elmcart("reach --out " + (folder / "r.svg") + " BerthBook " + kOffice).exitCode, 0);
  EXPECT_NE(folder.read("r.svg").find("<svg"), std::string::npos);
  EXPECT_EQ(elmcart("reach --out " + (folder / "r.png") + " BerthBook " + kOffice).exitCode, 0);
  EXPECT_EQ(folder.read("r.png").substr(1, 3), "PNG");
  EXPECT_NE(elmcart("reach --format graphml BerthBook " + kOffice).out.find("<graphml"), std::string::npos);
  RunResult text = elmcart("reach BerthBook " + kOffice);
  for (const char* name : {"office::Quay", "office::CraneGang", "office::PortService", "office::TugDispatch", "office::Departures", "office::HarbourMaster"})
    EXPECT_NE(text.out.find(name), std::string::npos) << name;
}

// A tree of which everything is left out says so, instead of "0 files".
TEST(Commands, SayWhenGitIgnoreLeavesEverythingOut) {
  Folder folder;
  folder.write("a.cpp", "int tides = 0;\nvoid rise() { ++tides; }\n");
  folder.write(".gitignore", "*\n");
  RunResult run = elmcart("survey .", folder.path());
  EXPECT_NE(run.err.find(".gitignore files leave out"), std::string::npos) << run.err;
  EXPECT_NE(run.err.find("gitignore = false"), std::string::npos) << run.err;
  folder.write("elmcart.toml", "[read]\ngitignore = false\n");
  EXPECT_NE(elmcart("survey .", folder.path()).out.find("tides"), std::string::npos);
}

TEST(Commands, NameEachFileOfWhichAPartIsUnread) {
  Folder folder;
  folder.write("good.cpp", "int tides = 0;\nvoid rise() { ++tides; }\n");
  folder.write("torn.cpp", "int tide = 0;\nint f( { ] ) 5 5 ;\n");
  auto unread = jsonOf(elmcart("survey --format json .", folder.path()))["unread"];
  EXPECT_EQ(unread["files"], 1);
  ASSERT_EQ(unread["list"].size(), 1u);
  EXPECT_EQ(unread["list"][0]["file"], "torn.cpp");
  EXPECT_EQ(unread["list"][0]["line"], 2);
  EXPECT_EQ(unread["list"][0]["text"], "int f( { ] ) 5 5 ;");
  RunResult told = elmcart("survey --verbose --no-cache .", folder.path());
  EXPECT_NE(told.err.find("unread: torn.cpp:2"), std::string::npos) << told.err;
}

// Files and pipes get everything; --limit, --check and --path choose.
TEST(Commands, AssessPutsTheSummaryFirst) {
  std::string office = std::string(ELMCART_DEMO) + "/harbour-office";
  RunResult all = elmcart("assess " + office), few = elmcart("assess --limit 2 " + office), one = elmcart("assess --check lost-update --path 'src/*' " + office);
  EXPECT_LT(all.out.find("Fix these first:"), all.out.find("thread 1: ") == std::string::npos ? all.out.find("Advice: ") : all.out.find("thread 1: "));
  EXPECT_NE(all.out.find("Advice: "), std::string::npos);
  EXPECT_EQ(few.out.find("Advice: "), std::string::npos);
  EXPECT_LT(std::count(few.out.begin(), few.out.end(), '\n'), 12);
  EXPECT_NE(one.out.find("thread.lost-update"), std::string::npos);
  EXPECT_EQ(one.out.find("thread.unguarded-creation"), std::string::npos);
  EXPECT_NE(elmcart("assess --check lost-updat " + office).err.find("did you mean"), std::string::npos);
}

// Who uses a piece of state from a test is marked, and can be left out.
TEST(Commands, SurveyMarksTestsAndLeavesThemOut) {
  Folder folder;
  folder.write("office.py", "class Office:\n    def __init__(self):\n        self.open = 0\n\n    def enter(self):\n        self.open += 1\n\n\noffice = Office()\n\n\ndef morning():\n    office.enter()\n");
  folder.write("tests/test_office.py", "from office import office\n\n\ndef test_enter():\n    office.enter()\n    assert office.open == 1\n");
  auto consumersOf = [&](const std::string& option) { return jsonOf(elmcart("survey --format json " + option + " .", folder.path()))["entities"][0]["consumers"]; };
  auto all = consumersOf(""), own = consumersOf("--no-tests");
  ASSERT_EQ(all.size(), own.size() + 2) << all;
  for (const auto& c : all) EXPECT_EQ(c.contains("tests"), c["file"] == "tests/test_office.py") << c;
  for (const auto& c : own) EXPECT_EQ(c["file"], "office.py");
}

// What one command prints the others take.
TEST(Commands, ExplainTakesEachIdThatAssessAndSurveyPrint) {
  std::string office = std::string(ELMCART_DEMO) + "/harbour-office";
  for (const auto& f : jsonOf(elmcart("assess --format json " + office))["findings"])
    for (const char* key : {"id", "entity", "fingerprint", "check"}) {
      RunResult run = elmcart("explain '" + f[key].get<std::string>() + "' " + office);
      EXPECT_EQ(run.exitCode, 0) << f[key] << run.err;
    }
  for (const auto& e : jsonOf(elmcart("survey --all --format json " + office))["entities"]) EXPECT_EQ(elmcart("explain '" + e["id"].get<std::string>() + "' " + office).exitCode, 0) << e["id"];
}

TEST(Commands, ExplainTellsTheTermsOfTheRisk) {
  RunResult check = elmcart("explain unguarded-creation");
  EXPECT_NE(check.out.find("thread.unguarded-creation"), std::string::npos);
  RunResult entity = elmcart("explain BerthBook " + kOffice);
  EXPECT_NE(entity.out.find("how bad x how sure x reach"), std::string::npos);
  EXPECT_NE(entity.out.find("office::BerthBook::slot_"), std::string::npos);
}

TEST(Commands, ReportIsCompleteInItself) {
  Folder folder;
  EXPECT_EQ(elmcart("report --out " + (folder / "page.html") + " " + kOffice).exitCode, 0);
  std::string page = folder.read("page.html");
  for (const char* text : {"office::BerthBook", "thread.unguarded-creation", "<svg", "id=\"inventory\""}) EXPECT_NE(page.find(text), std::string::npos) << text;
  // Nothing may be loaded from elsewhere; names of XML vocabularies are no loads.
  for (const char* load : {"<script src", "<link", "<img src=\"http", "@import", "url(http"}) EXPECT_EQ(page.find(load), std::string::npos) << load;
}

TEST(Commands, AcceptancesNeedAReasonAndGoStale) {
  Folder folder;
  folder.write("a.cpp",
               "#include <string>\n// elmcart: accept single.open-constructor because the office makes spare ones for drills\nclass Gong {\n public:\n  static Gong& gong() { static Gong g; return g; }\n  Gong(const Gong&) = delete;\n  Gong() {}\n  void strike() { ++n_; }\n private:\n  int n_ = 0;\n};\n"
               "// elmcart: accept single.copyable because nothing\nint berth();\n// elmcart: accept single.copyable\nint quay();\n");
  auto json = jsonOf(elmcart("assess --format json " + folder.path()));
  for (const auto& f : json["findings"]) EXPECT_NE(f["check"], "single.open-constructor");
  ASSERT_EQ(json["staleAcceptances"].size(), 2u);
  auto all = jsonOf(elmcart("assess --accepted --format json " + folder.path()));
  bool accepted = false;
  for (const auto& f : all["findings"])
    if (f["check"] == "single.open-constructor") accepted = f["accepted"] == "the office makes spare ones for drills";
  EXPECT_TRUE(accepted);
}

TEST(Commands, LedgerAcceptsAndReportsStaleRows) {
  Folder folder;
  folder.write("a.cpp", "class Gong {\n public:\n  static Gong& gong() { static Gong g; return g; }\n  Gong(const Gong&) = delete;\n  Gong() {}\n private:\n  int n_ = 0;\n};\n");
  folder.write("elmcart.toml", "ledger = \"ledger.toml\"\n");
  folder.write("ledger.toml", "[[accept]]\ncheck = \"single.open-constructor\"\nentity = \"Gong\"\nbecause = \"drills\"\n[[accept]]\ncheck = \"single.copyable\"\nentity = \"Gong\"\nbecause = \"no more\"\n");
  auto json = jsonOf(elmcart("assess --format json " + folder.path()));
  EXPECT_EQ(json["findings"].size(), 0u);
  ASSERT_EQ(json["staleAcceptances"].size(), 1u);
  EXPECT_EQ(json["staleAcceptances"][0]["check"], "single.copyable");
}

TEST(Commands, SurveySeveralPathsAtOnce) {
  Folder folder;
  folder.write("north/a.cpp", "int berths = 1;\nvoid f() { berths = 2; }\n");
  folder.write("south/deep/b.cpp", "int ships = 1;\nvoid g() { ships = 2; }\n");
  folder.write("east/c.cpp", "int cranes = 1;\nvoid h() { cranes = 2; }\n");
  auto json = jsonOf(elmcart("survey --format json " + (folder / "north") + " " + (folder / "south/deep/b.cpp")));
  std::set<std::string> files;
  for (const auto& e : json["entities"]) files.insert(e["file"].get<std::string>());
  EXPECT_EQ(files, (std::set<std::string>{"north/a.cpp", "south/deep/b.cpp"}));
  EXPECT_EQ(elmcart("survey " + (folder / "north") + " " + (folder / "nowhere")).exitCode, 3);
}

TEST(Commands, SurveyATreeOfSeveralLanguages) {
  Folder folder;
  folder.write("books.py", "class Book:\n    def add(self, s):\n        self.s = s\n\n\n_book = None\n\n\ndef book():\n    global _book\n    if _book is None:\n        _book = Book()\n    return _book\n");
  folder.write("Book.java", "class Book {\n  private static Book book;\n  int n;\n  private Book() {}\n  static Book get() {\n    if (book == null) book = new Book();\n    return book;\n  }\n  void add() { n++; }\n}\n");
  RunResult survey = elmcart("survey " + folder.path());
  EXPECT_EQ(survey.exitCode, 0);
  EXPECT_NE(survey.out.find("Python"), std::string::npos) << survey.out;
  EXPECT_NE(survey.out.find("Java"), std::string::npos) << survey.out;
  EXPECT_NE(survey.out.find("2 pieces of shared state"), std::string::npos) << survey.out;
  EXPECT_NE(survey.out.find("in 2 files of 2 languages"), std::string::npos) << survey.out;
  // The advice speaks of each language's own forms.
  RunResult assess = elmcart("assess " + folder.path());
  EXPECT_NE(assess.out.find("a nested holder class"), std::string::npos) << assess.out;
  // What cannot be rewritten is refused, not tried.
  Folder yard;
  yard.write("mast.go", "package yard\n\ntype Mast struct{ flags int }\n\nvar mast *Mast\n\nfunc TheMast(height int) *Mast {\n\tif mast == nil {\n\t\tmast = &Mast{height}\n\t}\n\treturn mast\n}\n\nfunc (m *Mast) Raise() { m.flags++ }\n");
  RunResult propose = elmcart("propose --move inject mast " + yard.path());
  EXPECT_EQ(propose.exitCode, 1);
  EXPECT_NE(propose.err.find("its accessor takes arguments"), std::string::npos) << propose.err;
}

TEST(Commands, RefuseUnknownConfigurationKeysByName) {
  Folder folder;
  folder.write("a.cpp", "int berth;\n");
  folder.write("elmcart.toml", "[build]\ncomands = [\"make\"]\n");
  RunResult run = elmcart("survey " + folder.path());
  EXPECT_EQ(run.exitCode, 2);
  EXPECT_NE(run.err.find("unknown key 'build.comands'; did you mean 'commands'?"), std::string::npos) << run.err;
}

}  // namespace
}  // namespace elmcart
