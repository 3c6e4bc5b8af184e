// Runs the built program on files in a temporary folder.
#pragma once

#include <gtest/gtest.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>
#include <string>

#include "confirm/process.h"
#include "support/folder.h"

namespace elmcart {
inline RunResult elmcart(const std::string& arguments, const std::string& folder = "", int seconds = 600) {
  RunOptions options;
  options.folder = folder;
  options.seconds = seconds;
  // A cache of the tests' own, never the user's.
  static const Folder cache;
  options.environment = {"NO_COLOR=1", "XDG_CACHE_HOME=" + cache.path()};
  auto run = runCommand(std::string(ELMCART_PROGRAM) + " " + arguments, options);
  EXPECT_TRUE(run.ok());
  return run ? *run : RunResult{};
}

inline nlohmann::json jsonOf(const RunResult& run) {
  auto json = nlohmann::json::parse(run.out, nullptr, false);
  EXPECT_FALSE(json.is_discarded()) << run.out.substr(0, 300) << run.err;
  return json;
}

// A project so small that a build and test take a second: one accessor, two users.
inline void writeTinyProject(const Folder& folder) {
  folder.write("gauge.h", "#pragma once\nclass Gauge {\n public:\n  static Gauge& get();\n  int level() const { return level_; }\n  void raise(int by) { level_ += by; }\n private:\n  Gauge() = default;\n  static Gauge* slot_;\n  int level_ = 0;\n};\n");
  folder.write("gauge.cpp", "#include \"gauge.h\"\nGauge* Gauge::slot_ = nullptr;\nGauge& Gauge::get() {\n  if (!slot_) slot_ = new Gauge;\n  return *slot_;\n}\n");
  folder.write("sluice.h", "#pragma once\nclass Sluice {\n public:\n  void open();\n  int seen() const;\n};\nclass Basin {\n public:\n  int pass() { sluice_.open(); return sluice_.seen(); }\n private:\n  Sluice sluice_;\n};\n");
  folder.write("sluice.cpp", "#include \"sluice.h\"\n#include \"gauge.h\"\nvoid Sluice::open() { Gauge::get().raise(3); }\nint Sluice::seen() const { return Gauge::get().level(); }\n");
  folder.write("main.cpp",
               "#include <cstdio>\n#include \"sluice.h\"\nint main(int argc, char** argv) {\n  Basin basin;\n  int a = basin.pass();\n  int b = basin.pass();\n"
               "  std::FILE* out = std::fopen(\"results.xml\", \"w\");\n"
               "  std::fprintf(out, \"<testsuite><testcase name='first'>%s</testcase><testcase name='second'>%s</testcase></testsuite>\", a == 3 ? \"\" : \"<failure message='first level'/>\", b == 6 ? \"\" : \"<failure message='second level'/>\");\n"
               "  std::fclose(out);\n  std::printf(\"%d %d %d\\n\", a, b, argc);\n  (void)argv;\n  return 0;\n}\n");
  folder.write("elmcart.toml",
               "[build]\ncommands = [\"g++ -std=c++17 -Wall -Werror -o lock gauge.cpp sluice.cpp main.cpp\"]\n[test]\ncommands = [\"./lock\"]\nresults = [\"results.xml\"]\nbaseline-runs = 2\n[[witness]]\nname = \"a passage\"\ncommand = \"./lock one\"\n");
}

}  // namespace elmcart
