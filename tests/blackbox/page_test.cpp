// The page in a browser: searched, filtered and sorted in place, light and dark, narrow, without script; and at size.
#include <gtest/gtest.h>

#include "blackbox/program.h"
#include "blackbox/tools.h"

namespace elmcart {
namespace {

RunResult inBrowser(const Folder& folder, const std::string& arguments) {
  return inFolder(folder, "node " ELMCART_TEST_TOOLS "/page.mjs \"$(command -v chromium)\" " + arguments);
}

TEST(Page, IsUsedInABrowser) {
  if (!installed("chromium")) GTEST_SKIP() << "no browser is installed";
  Folder folder;
  fs::copy(std::string(ELMCART_DEMO) + "/harbour-office", folder / "tree", fs::copy_options::recursive);
  // Text that a page must not take for its own.
  folder.write("tree/src/hostile.cpp",
               "#include <thread>\nnamespace office {\nint hails = 0;  // </span></pre><script>window.hostile = 1</script><img src=x onerror=\"window.hostile = 1\">\n"
               "void hail() { ++hails; /* {{{title}}} </script><script>window.hostile = 1</script> */ }\nvoid hailTwice() {\n  std::thread first(hail), second(hail);\n  first.join();\n  second.join();\n}\n}\n");
  ASSERT_EQ(elmcart("report --out " + (folder / "page.html") + " " + (folder / "tree")).exitCode, 0);
  EXPECT_NE(folder.read("page.html").find("onerror"), std::string::npos);
  RunResult run = inBrowser(folder, "page.html");
  EXPECT_EQ(run.exitCode, 0) << run.out << run.err;
}

TEST(Page, StaysQuickWithFiveThousandFindings) {
  Folder folder;
  constexpr int kBooks = 1260;
  for (int i = 0; i < kBooks; ++i) {
    std::string name = "Book" + std::to_string(i);
    folder.write("tree/quay" + std::to_string(i % 40) + "/" + name + ".java",
                 "public class " + name + " {\n    private static " + name + " book;\n    private int ships;\n\n    public static " + name + " get() {\n        if (book == null) {\n            book = new " + name +
                     "();\n        }\n        return book;\n    }\n\n    public void moor() {\n        ships++;\n    }\n}\n\nclass Crane" + std::to_string(i) + " {\n    void work() {\n        new Thread(() -> " + name +
                     ".get().moor()).start();\n        new Thread(() -> " + name + ".get().moor()).start();\n    }\n\n    void rest() {\n        " +
                     name + ".get().moor();\n    }\n}\n");
  }
  RunResult assessed = elmcart("assess --format json --no-cache --out " + (folder / "a.json") + " " + (folder / "tree")), reported = elmcart("report --no-cache --out " + (folder / "page.html") + " " + (folder / "tree"));
  EXPECT_GT(nlohmann::json::parse(folder.read("a.json"))["findings"].size(), 5000u);
  EXPECT_LT(reported.seconds, 2 * assessed.seconds + 0.5);
  EXPECT_LT(fs::file_size(folder / "page.html"), 15u << 20);
  RecordProperty("assess", std::to_string(assessed.seconds));
  RecordProperty("report", std::to_string(reported.seconds));
  if (!installed("chromium")) GTEST_SKIP() << "no browser is installed";
  // Twice the two seconds that it has: machines that run tests do other things at a time.
  RunResult run = inBrowser(folder, "page.html 4");
  EXPECT_EQ(run.exitCode, 0) << run.out << run.err;
}

}  // namespace
}  // namespace elmcart
