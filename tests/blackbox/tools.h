// Compilers and interpreters with which tests build and run examples.
#pragma once

#include <map>
#include <set>

#include "assess/examples.h"
#include "blackbox/program.h"

namespace elmcart {

// Checks whose examples are programs that show the fault by running.
inline const std::set<std::string> kShown = {"thread.unguarded-creation", "thread.double-check-unsound", "thread.await-gap", "thread.lost-update", "lifetime.dangling-subscriber",
                                      "init.order-across-files",  "single.reinitialised",        "single.revivable", "single.slot-shared-by-subclasses"};
struct Tools {
  const char* needs;
  std::string compile;  // in the folder of the files; FILES is put in
  std::string run;
};

inline Tools toolsFor(const std::string& check, const std::string& language) {
  if (language == "cpp") {
    // Data races and dead objects are shown by the compiler's own sanitizers.
    std::string sanitizer = check == "thread.double-check-unsound" ? "-fsanitize=thread" : check.substr(0, 9) == "lifetime." ? "-fsanitize=address" : "";
    bool whole = kShown.count(check) > 0;
    return {"g++", std::string("g++ -std=c++20 -pthread ") + (whole ? "-O1 -g " + sanitizer + " -o program FILES" : "-fsyntax-only FILES"), "./program"};
  }
  if (language == "java") return {"javac", "javac -J-XX:TieredStopAtLevel=1 -J-XX:+UseSerialGC -d . FILES", "java -cp . Main"};
  if (language == "python") return {"python3", "python3 -m py_compile FILES", "python3 FILES"};
  if (language == "javascript") return {"node", "for f in FILES; do node --check $f || exit 1; done", "node FILES"};
  if (language == "go") return {"go", kShown.count(check) ? std::string("go build ") + (check == "thread.double-check-unsound" ? "-race " : "") + "-o program FILES" : "go vet FILES", "./program"};
  if (language == "csharp") return {"mcs", "mcs -nologo -warn:0 -target:" + std::string(kShown.count(check) ? "exe" : "library") + " -out:program.exe FILES", "mono program.exe"};
  if (language == "php") return {"php", "for f in FILES; do php -l $f || exit 1; done", "php FILES"};
  return {"", "", ""};
}

inline RunResult inFolder(const Folder& folder, const std::string& command) {
  RunOptions options;
  options.folder = folder.path();
  options.seconds = 300;
  options.environment = {"GOFLAGS=-mod=mod", "GO111MODULE=off", "GOCACHE=" + (fs::temp_directory_path() / "elmcart-tests-go").string()};
  auto run = runCommand(command, options);
  EXPECT_TRUE(run.ok());
  return run ? *run : RunResult{};
}

// Writes an example's files; their names, those of the language's own ending.
inline std::string writeExample(const std::string& check, const std::string& language, bool failing, const Folder& folder) {
  static const std::map<std::string, std::string> kEndings = {{"cpp", ".cpp"}, {"java", ".java"}, {"python", ".py"}, {"javascript", ".js"}, {"go", ".go"}, {"csharp", ".cs"}, {"php", ".php"}};
  std::string files;
  for (const Example& e : examples()) {
    if (e.check != check || e.language != language || e.failing != failing) continue;
    std::string name = e.file.empty() ? "example" + kEndings.at(language) : std::string(e.file);
    folder.write(name, std::string(e.text));
    if (fs::path(name).extension() == kEndings.at(language)) files += (files.empty() ? "" : " ") + name;
  }
  return files;
}

inline bool installed(const std::string& tool) { return std::system(("command -v " + tool + " >/dev/null 2>&1").c_str()) == 0; }

}  // namespace elmcart
