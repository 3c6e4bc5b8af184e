// What the documents show is what the program prints: each block of a console is run on the demo.
// ELMCART_WRITE=1 writes what it prints today.
#include <gtest/gtest.h>

#include "base/text.h"
#include "blackbox/program.h"
#include "blackbox/tools.h"

namespace elmcart {
namespace {

class Documents : public testing::TestWithParam<const char*> {};

TEST_P(Documents, ShowWhatIsPrinted) {
  Folder folder;
  for (const auto& office : fs::directory_iterator(ELMCART_DEMO)) fs::copy(office.path(), folder / office.path().filename().string(), fs::copy_options::recursive);
  std::string path = std::string(ELMCART_DOCS) + "/" + GetParam(), made;
  std::stringstream text;
  text << std::ifstream(path).rdbuf();
  std::string begin = "```console\n$ ", end = "```\n", document = text.str();
  size_t at = 0, blocks = 0;
  for (size_t block; (block = document.find(begin, at)) != std::string::npos; ++blocks) {
    size_t command = block + begin.size(), output = document.find('\n', command) + 1, closed = document.find("\n" + end, output - 1) + 1;
    std::string line = document.substr(command, output - 1 - command);
    ASSERT_EQ(line.rfind("elmcart ", 0), 0u) << line;
    RunResult run = inFolder(folder, "COLUMNS=100 XDG_CACHE_HOME=" + (folder / "cache") + " " ELMCART_PROGRAM + line.substr(7));
    EXPECT_EQ(run.exitCode, 0) << line << run.err;
    if (!std::getenv("ELMCART_WRITE")) EXPECT_EQ(run.out, document.substr(output, closed - output)) << line;
    made += document.substr(at, output - at) + run.out;
    at = closed;
  }
  EXPECT_GT(blocks, 0u);
  if (std::getenv("ELMCART_WRITE")) std::ofstream(path, std::ios::binary) << made + document.substr(at);
}

INSTANTIATE_TEST_SUITE_P(All, Documents, testing::Values("finding.md", "judging.md", "reworking.md", "../README.md"), [](const auto& info) {
  std::string name;
  for (char c : std::string(info.param)) if (isWordByte(c)) name += c;
  return name;
});

}  // namespace
}  // namespace elmcart
