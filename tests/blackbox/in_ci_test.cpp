// The recipes of docs/in-ci.md, run as they stand, one after the other; then what they are for.
#include <gtest/gtest.h>

#include <pugixml.hpp>

#include "blackbox/program.h"
#include "blackbox/tools.h"

namespace elmcart {
namespace {

struct Recipe {
  std::string text;
  int exitCode = 0;
};

std::vector<Recipe> recipesOf(const std::string& path) {
  std::vector<Recipe> out;
  std::ifstream in(path);
  bool inside = false;
  for (std::string line; std::getline(in, line);) {
    if (line == "```sh") out.emplace_back(), inside = true;
    else if (line == "```") inside = false;
    else if (inside && line.rfind("# ends with ", 0) == 0) out.back().exitCode = std::stoi(line.substr(12));
    else if (inside) out.back().text += line + "\n";
  }
  return out;
}

class InCi : public testing::Test {
 protected:
  RunResult run(const std::string& commands) {
    std::string folder = fs::path(ELMCART_PROGRAM).parent_path().string();
    std::ofstream(folder_ / "recipe.sh") << "set -e\nPATH=" << folder << ":$PATH\nexport XDG_CACHE_HOME=" << (folder_ / "cache") << "\ncd " << (folder_ / "office") << "\n" << commands;
    return inFolder(folder_, "sh recipe.sh");
  }
  void SetUp() override {
    fs::copy(std::string(ELMCART_DEMO) + "/harbour-office-java", folder_ / "office", fs::copy_options::recursive);
    ASSERT_EQ(run("git init -q . && git add . && git -c user.name=office -c user.email=office@example.org commit -q -m office").exitCode, 0);
  }
  void add(const std::string& file, const std::string& text) { std::ofstream(folder_ / ("office/" + file)) << text; }

  Folder folder_;
};

TEST_F(InCi, TheRecipesRun) {
  std::vector<Recipe> recipes = recipesOf(std::string(ELMCART_DOCS) + "/in-ci.md");
  ASSERT_GT(recipes.size(), 8u);
  bool java = inFolder(folder_, "javac -version").exitCode == 0;
  for (const Recipe& recipe : recipes) {
    if (!java && recipe.text.find("confirm") != std::string::npos) continue;
    RunResult result = run(recipe.text);
    EXPECT_EQ(result.exitCode, recipe.exitCode) << recipe.text << result.out << result.err;
  }
  // A new fault is no row of the ledger: the gate fails, and the test report has one failure more.
  add("office/Anchor.java",
      "package office;\n\npublic class Anchor {\n    public static int dropped;\n\n    public static void drop() {\n        new Thread(() -> dropped++).start();\n        new Thread(() -> dropped++).start();\n    }\n}\n");
  RunResult failed = run("elmcart assess --gate 0 .");
  EXPECT_EQ(failed.exitCode, 1) << failed.out;
  EXPECT_NE(failed.out.find("Anchor"), std::string::npos) << failed.out;
  EXPECT_EQ(failed.out.find("Lantern"), std::string::npos) << failed.out;
  ASSERT_EQ(run("elmcart assess --format junit --out junit.xml .").exitCode, 0);
  pugi::xml_document document;
  ASSERT_TRUE(document.load_file((folder_ / "office/junit.xml").c_str()));
  pugi::xml_node suite = document.child("testsuites").child("testsuite");
  size_t cases = 0, failures = 0;
  for (pugi::xml_node one : suite.children("testcase")) {
    ++cases;
    if (!one.child("failure")) continue;
    ++failures;
    EXPECT_NE(std::string(one.attribute("file").value()).find("Anchor.java"), std::string::npos) << one.attribute("name").value();
    EXPECT_NE(std::string(one.child("failure").text().get()).find("Advice: "), std::string::npos);
  }
  EXPECT_EQ(failures, 1u);
  EXPECT_EQ(suite.attribute("tests").as_uint(), cases);
  EXPECT_EQ(suite.attribute("failures").as_uint(), failures);
  // What was accepted is told in the output of a case that passes.
  EXPECT_TRUE(document.select_node("//testcase[contains(system-out, 'accepted: known at the start')]"));
  // A finding that is gone leaves a row that matches nothing.
  run("rm office/Anchor.java && sed -i 's/private static int next;/private static final int next = 0;/; s/++next/next/' office/Tickets.java");
  EXPECT_NE(run("elmcart assess --gate 0 .").out.find("matches no finding any more"), std::string::npos);
}

}  // namespace
}  // namespace elmcart
