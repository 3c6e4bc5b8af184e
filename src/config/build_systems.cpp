#include "config/build_systems.h"

#include <re2/re2.h>

#include <algorithm>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <optional>
#include <set>

#include "base/text.h"
#include "source/walk.h"

namespace elmcart {
namespace fs = std::filesystem;
namespace {

using re2::RE2;

// One folder that may be a project's root.
class Folder {
 public:
  Folder(std::string path, std::string prefix) : path_(std::move(path)), prefix_(std::move(prefix)) {}

  bool has(const std::string& name) const {
    std::error_code error;
    return fs::exists(path_ + "/" + name, error);
  }
  std::string text(const std::string& name) const {
    auto read = readWhole(path_ + "/" + name);
    return read ? *read : std::string();
  }
  // The first of these names that is there; empty: none.
  std::string first(std::initializer_list<std::string> names) const {
    for (const std::string& name : names)
      if (has(name)) return name;
    return "";
  }
  // Files below a folder of it whose names match, up to a bound.
  std::vector<std::string> files(const std::string& below, const std::string& pattern, size_t most = 400) const {
    std::vector<std::string> out;
    RE2 expression(pattern);
    std::error_code error;
    fs::path start = below.empty() ? fs::path(path_) : fs::path(path_) / below;
    for (fs::recursive_directory_iterator it(start, fs::directory_options::skip_permission_denied, error), end; !error && it != end && out.size() < most; it.increment(error)) {
      std::string name = it->path().filename().string();
      if (it->is_directory(error) && (name[0] == '.' || name == "node_modules" || name == "build" || name == "out" || it.depth() > 9)) {
        it.disable_recursion_pending();
        continue;
      }
      if (it->is_regular_file(error) && RE2::FullMatch(name, expression)) out.push_back(fs::relative(it->path(), path_, error).string());
    }
    std::sort(out.begin(), out.end());
    return out;
  }
  BuildSystem system(std::string name, const std::string& file) const {
    BuildSystem out;
    out.name = std::move(name);
    out.file = prefix_ + file;
    return out;
  }
  const std::string& prefix() const { return prefix_; }

 private:
  std::string path_, prefix_;
};

// A member of an object that is an object, too; an empty one otherwise.
nlohmann::json memberOf(const nlohmann::json& object, const char* name) {
  auto found = object.is_object() ? object.find(name) : object.end();
  return object.is_object() && found != object.end() && found->is_object() ? *found : nlohmann::json::object();
}

std::optional<BuildSystem> cmake(const Folder& f) {
  if (!f.has("CMakeLists.txt")) return std::nullopt;
  BuildSystem out = f.system("CMake with CTest", "CMakeLists.txt");
  std::string text = f.text("CMakeLists.txt"), options, name;
  // Tests may be built only when they are asked for.
  re2::StringPiece rest(text);
  static const RE2 kOption(R"((?i)option\s*\(\s*(\w*TESTS?(?:ING)?\w*)\s+(?:"[^"]*"|\S+)\s*(?:OFF|FALSE|0)?\s*\))");
  while (RE2::FindAndConsume(&rest, kOption, &name)) options += " -D" + name + "=ON";
  out.build = {"cmake -S . -B elmcart-build -DCMAKE_BUILD_TYPE=Debug" + options, "cmake --build elmcart-build --parallel 2"};
  out.test = {"ctest --test-dir elmcart-build --output-on-failure --output-junit results.xml"};
  out.results = {"elmcart-build/results.xml"};
  out.needs = {"cmake", "ctest"};
  bool tests = text.find("enable_testing") != std::string::npos || text.find("CTest") != std::string::npos || text.find("add_test") != std::string::npos || !options.empty();
  for (const std::string& file : f.files("", "CMakeLists\\.txt", 40)) tests |= f.text(file).find("add_test") != std::string::npos || f.text(file).find("discover_tests") != std::string::npos;
  if (!tests) {
    out.name = "CMake";
    out.test.clear(), out.results.clear();
    out.notes.push_back("No test is registered with CTest: give the test command by hand.");
  }
  return out;
}

std::optional<BuildSystem> meson(const Folder& f) {
  if (!f.has("meson.build")) return std::nullopt;
  BuildSystem out = f.system("Meson", "meson.build");
  out.build = {"meson setup elmcart-build", "meson compile -C elmcart-build"};
  out.test = {"meson test -C elmcart-build"};
  out.results = {"elmcart-build/meson-logs/testlog.junit.xml"};
  out.needs = {"meson"};
  return out;
}

std::optional<BuildSystem> make(const Folder& f) {
  std::string file = f.first({"GNUmakefile", "Makefile", "makefile", "Makefile.am", "configure"});
  if (file.empty()) return std::nullopt;
  BuildSystem out = f.system("Make", file);
  if (file == "Makefile.am" || file == "configure") {
    if (!f.has("configure")) out.build.push_back("autoreconf -i"), out.needs.push_back("autoreconf");
    out.build.push_back("./configure");
  }
  out.build.push_back("make -j2");
  out.needs.push_back("make");
  std::string text = f.text(file), target;
  static const RE2 kTarget(R"((?m)^(check|test|tests)\s*:)");
  if (file == "Makefile.am" || file == "configure") target = "check";
  else (void)RE2::PartialMatch(text, kTarget, &target);
  if (!target.empty()) out.test = {"make " + target};
  else out.notes.push_back("The makefile has no target check or test: give the test command by hand.");
  return out;
}

std::optional<BuildSystem> maven(const Folder& f) {
  if (!f.has("pom.xml")) return std::nullopt;
  BuildSystem out = f.system("Maven", "pom.xml");
  out.build = {"mvn -q -B -o test-compile"};
  out.test = {"mvn -B -o surefire:test"};
  out.results = {"**/target/surefire-reports/TEST-*.xml"};
  out.leaveOut = {"**/target/**"};
  out.needs = {"mvn"};
  out.notes.push_back("Maven runs offline (-o): run it once by hand, so that what it needs is there.");
  return out;
}

std::optional<BuildSystem> gradle(const Folder& f) {
  std::string file = f.first({"build.gradle.kts", "build.gradle", "settings.gradle.kts", "settings.gradle"});
  if (file.empty()) return std::nullopt;
  BuildSystem out = f.system("Gradle", file);
  std::string gradle = f.has("gradlew") ? "./gradlew" : "gradle";
  out.build = {gradle + " --offline -q testClasses"};
  out.test = {gradle + " --offline test"};
  out.results = {"**/build/test-results/**/*.xml"};
  out.needs = {gradle};
  out.notes.push_back("Gradle runs offline: run it once by hand, so that what it needs is there.");
  return out;
}

// Java sources without a build file: main sources and tests, with the class path of what stands beside them.
std::optional<BuildSystem> javac(const Folder& f) {
  std::string main = f.first({"src/main/java", "src/java", "src", "source"}), tests = f.first({"src/test/java", "src/tests/java", "test", "tests"});
  if (main.empty() || f.files(main, R"(.*\.java)", 1).empty()) return std::nullopt;
  BuildSystem out = f.system("plain Java (javac)", main);
  std::string path = "out/main";
  for (const std::string& jar : f.files("lib", R"(.*\.jar)", 60)) path += ":" + jar;
  out.build = {"mkdir -p out/main out/test", "find " + main + " -name '*.java' > out/main.txt", "javac -nowarn -encoding UTF-8 -d out/main -cp " + path + " @out/main.txt",
               "cd " + main + " && find . -type f ! -name '*.java' -exec cp --parents {} \"$OLDPWD/out/main\" ';'"};
  out.needs = {"javac", "java"};
  out.leaveOut = {"out/**"};
  std::vector<std::string> classes;
  if (!tests.empty() && tests != main) classes = f.files(tests, R"(.*Tests?\.java|Test.*\.java)");
  if (classes.empty()) {
    out.notes.push_back("No test classes were found: give the test command, or a witness, by hand.");
    return out;
  }
  bool five = f.text(classes.front()).find("org.junit.jupiter") != std::string::npos;
  std::string junit = five ? "/usr/share/java/junit-platform-console.jar" : "/usr/share/java/junit4.jar:/usr/share/java/hamcrest-core.jar";
  out.build.push_back("find " + tests + " -name '*.java' > out/test.txt");
  out.build.push_back("javac -nowarn -encoding UTF-8 -d out/test -cp " + path + ":" + junit + " @out/test.txt");
  std::string names = "$(cd " + tests + " && find . -name '*Test.java' -o -name '*Tests.java' -o -name 'Test*.java' | sed -e 's#^./##' -e 's#.java$##' -e 's#/#.#g')";
  out.test = {five ? "java -jar " + junit + " -cp out/test:" + path + " --scan-class-path" : "java -cp out/test:" + path + ":" + junit + " org.junit.runner.JUnitCore " + names};
  out.notes.push_back("The class path names what stands in lib/ and the system's JUnit: add what else the sources import.");
  return out;
}

std::optional<BuildSystem> python(const Folder& f) {
  std::string file = f.first({"pyproject.toml", "setup.py", "setup.cfg", "tox.ini", "pytest.ini", "conftest.py", "requirements.txt"});
  std::string tests = f.first({"tests", "test", "Tests"});
  // Tests that stand inside of the package, which is imported from here.
  if (tests.empty())
    for (const std::string& package : f.files("", R"(__init__\.py)", 200)) {
      std::string folder = package.substr(0, package.size() - std::string_view("__init__.py").size());
      if (tests.empty() && folder.find('/') + 1 == folder.size())
        for (const char* name : {"tests", "test"})
          if (tests.empty() && f.has(folder + name)) tests = folder + name;
    }
  if (file.empty() && (tests.empty() || f.files(tests, R"(.*\.py)", 1).empty())) return std::nullopt;
  BuildSystem out = f.system("Python", file.empty() ? tests : file);
  std::vector<std::string> files = f.files("", R"(test_.*\.py|.*_test\.py|.*tests?case\.py|tests?\.py)", 200);
  bool pytest = f.has("pytest.ini") || f.has("conftest.py");
  for (const char* name : {"pyproject.toml", "setup.cfg", "tox.ini", "setup.py"}) pytest |= f.text(name).find("pytest") != std::string::npos;
  for (const std::string& test : files) {
    if (pytest) break;
    std::string text = f.text(test);
    pytest = text.find("import pytest") != std::string::npos || (text.find("unittest") == std::string::npos && text.find("\ndef test_") != std::string::npos);
  }
  out.needs = {"python3"};
  bool sources = f.has("src") && !f.files("src", R"(.*\.py)", 1).empty();
  out.build = {"python3 -m compileall -q ."};
  std::string path = sources ? "PYTHONPATH=src " : "";
  if (f.text("setup.py").find("ext_modules") != std::string::npos) out.build.push_back("python3 setup.py build_ext --inplace");
  if (files.empty()) {
    out.notes.push_back("No test files were found: give the test command, or a witness, by hand.");
    return out;
  }
  // A script of the project's own that runs them all.
  std::string runner = f.first({"runtests.py", "run_tests.py", "tests/runtests.py", "tests/run_tests.py"});
  if (runner.empty() && f.has("bin"))
    if (std::vector<std::string> scripts = f.files("bin", R"(.*(testcases|runtests|run-tests|run_tests)(\.py)?)", 1); !scripts.empty()) runner = scripts.front();
  if (!runner.empty()) {
    out.name = "Python with a test script";
    out.test = {path + "python3 " + runner + " -v"};
    return out;
  }
  // Where the tests stand in one folder, that one is named.
  std::string where = !tests.empty() && std::all_of(files.begin(), files.end(), [&](const std::string& t) { return t.starts_with(tests + "/"); }) ? tests : "";
  if (pytest) {
    out.name = "Python with pytest";
    out.test = {path + "python3 -m pytest -q -p no:cacheprovider --junitxml=elmcart-results.xml" + (where.empty() ? "" : " " + where)};
    out.results = {"elmcart-results.xml"};
    out.needs.emplace_back("python3 -m pytest");
  } else {
    out.name = "Python with unittest";
    bool package = !where.empty() && f.has(where + "/__init__.py");
    bool cases = std::all_of(files.begin(), files.end(), [](const std::string& t) { return t.ends_with("case.py") || t.ends_with("cases.py"); });
    out.test = {path + "python3 -m unittest discover -v" + (where.empty() ? "" : " -s " + where + (package ? " -t ." : "")) + (cases ? " -p '*case*.py'" : "")};
  }
  return out;
}

std::optional<BuildSystem> node(const Folder& f) {
  if (!f.has("package.json")) return std::nullopt;
  BuildSystem out = f.system("npm scripts", "package.json");
  nlohmann::json package = nlohmann::json::parse(f.text("package.json"), nullptr, false);
  nlohmann::json scripts = memberOf(package, "scripts");
  auto script = [&](const char* name) { return scripts.contains(name) && scripts[name].is_string() ? scripts[name].get<std::string>() : std::string(); };
  std::string test = script("test");
  for (const char* build : {"build", "compile", "tsc"})
    if (out.build.empty() && !script(build).empty()) out.build = {std::string("npm run ") + build};
  if (out.build.empty() && f.has("tsconfig.json")) out.build = {"npx --no-install tsc --noEmit"};
  out.needs = {"node", "npm"};
  nlohmann::json all = memberOf(package, "devDependencies");
  auto runs = [&](const char* runner) { return test.find(runner) != std::string::npos; };
  if (test.empty() || test.find("no test specified") != std::string::npos) {
    out.notes.push_back("package.json has no test script: give the test command by hand.");
  } else if (runs("jest")) {
    out.test = {"npx --no-install jest --json --outputFile=elmcart-results.json"};
    out.results = {"elmcart-results.json"};
    out.name = "npm with jest";
  } else if (runs("vitest")) {
    out.test = {"npx --no-install vitest run --reporter=json --outputFile=elmcart-results.json"};
    out.results = {"elmcart-results.json"};
    out.name = "npm with vitest";
  } else if (runs("node --test") || runs("node:test")) {
    out.test = {"npm test"};
    out.name = "npm with node's test runner";
  } else {
    out.test = {"npm test"};
    if (runs("mocha")) out.name = "npm with mocha";
  }
  if ((!all.empty() || !memberOf(package, "dependencies").empty()) && !f.has("node_modules")) out.notes.push_back("node_modules is not there: run npm ci once, and it is copied along.");
  out.leaveOut = {"dist/**", "coverage/**"};
  return out;
}

std::optional<BuildSystem> go(const Folder& f) {
  bool module = f.has("go.mod");
  std::vector<std::string> sources = module ? std::vector<std::string>{} : f.files("", R"(.*\.go)");
  std::erase_if(sources, [](const std::string& path) { return path.find('/') != std::string::npos; });
  if (!module && sources.empty()) return std::nullopt;
  BuildSystem out = f.system("Go", module ? "go.mod" : sources.front());
  std::string before = module ? "" : "GO111MODULE=off ";
  out.build = {before + "go build " + (module ? "./..." : ".")};
  out.test = {before + "go test -v " + (module ? "./..." : ".")};
  out.leaveOut = {"vendor/**"};
  out.needs = {"go"};
  if (!module) out.notes.push_back("There is no go.mod: where the package imports others by path, lay it below GOPATH in the commands.");
  return out;
}

std::optional<BuildSystem> php(const Folder& f) {
  std::string file = f.first({"phpunit.xml", "phpunit.xml.dist", "composer.json"});
  if (file.empty()) return std::nullopt;
  BuildSystem out = f.system("PHP with PHPUnit", file);
  std::string source = f.first({"src", "lib", "inc"});
  out.build = {"find " + (source.empty() ? std::string(".") : source) + " -name '*.php' -not -path './vendor/*' -print0 | xargs -0 -n 50 sh -c 'for f; do php -l \"$f\" > /dev/null || exit 1; done' sh"};
  std::string runner = f.has("vendor/bin/phpunit") ? "vendor/bin/phpunit" : "phpunit";
  out.test = {runner + " --log-junit elmcart-results.xml" + (file == "composer.json" && f.has("tests") ? " tests" : "")};
  out.results = {"elmcart-results.xml"};
  out.leaveOut = {"vendor/**"};
  out.needs = {"php", runner};
  if (f.has("composer.json") && !f.has("vendor")) out.notes.push_back("vendor is not there: run composer install once, and it is copied along.");
  return out;
}

std::optional<BuildSystem> dotnet(const Folder& f) {
  std::vector<std::string> solutions = f.files("", R"(.*\.slnx?)", 3), projects = f.files("", R"(.*\.csproj)", 40);
  if (solutions.empty() && projects.empty()) return std::nullopt;
  BuildSystem out = f.system(".NET", solutions.empty() ? projects.front() : solutions.front());
  std::string what = solutions.empty() ? projects.size() == 1 ? " " + projects.front() : "" : " " + solutions.front();
  out.build = {"dotnet build --nologo -v q" + what};
  out.test = {"dotnet test --nologo --no-build --logger 'console;verbosity=normal'" + what};
  out.leaveOut = {"**/bin/**", "**/obj/**"};
  out.needs = {"dotnet"};
  return out;
}

std::optional<BuildSystem> swift(const Folder& f) {
  if (!f.has("Package.swift")) return std::nullopt;
  BuildSystem out = f.system("Swift package", "Package.swift");
  out.build = {"swift build --build-tests"};
  out.test = {"swift test --skip-build"};
  out.needs = {"swift"};
  return out;
}

std::optional<BuildSystem> dart(const Folder& f) {
  if (!f.has("pubspec.yaml")) return std::nullopt;
  bool flutter = f.text("pubspec.yaml").find("sdk: flutter") != std::string::npos;
  BuildSystem out = f.system(flutter ? "Dart with Flutter" : "Dart", "pubspec.yaml");
  std::string tool = flutter ? "flutter" : "dart";
  out.build = {tool + " pub get --offline", tool + " analyze --no-fatal-warnings"};
  out.test = {flutter ? "flutter test --machine" : "dart test --reporter json"};
  out.needs = {tool};
  return out;
}

std::string quoted(const std::string& text) {
  std::string out = "\"";
  for (char c : text) {
    if (c == '"' || c == '\\') out += '\\';
    out += c;
  }
  return out + "\"";
}
std::string listOf(const std::vector<std::string>& items) {
  std::string out;
  for (const std::string& item : items) out += (out.empty() ? "" : ", ") + quoted(item);
  return "[" + out + "]";
}

}  // namespace

Result<std::vector<BuildSystem>> buildSystemsOf(const std::string& root) {
  std::error_code error;
  if (!fs::is_directory(root, error)) return Error{root, "no such folder"};
  using Recognise = std::optional<BuildSystem> (*)(const Folder&);
  constexpr Recognise kAll[] = {cmake, meson, maven, gradle, go, node, python, php, dotnet, swift, dart, make, javac};
  std::vector<BuildSystem> out;
  auto look = [&](const Folder& folder) {
    for (Recognise recognise : kAll)
      if (std::optional<BuildSystem> found = recognise(folder)) out.push_back(std::move(*found));
  };
  look(Folder(root, ""));
  if (out.empty()) {
    // One folder deeper; the commands go there first.
    std::set<std::string> folders;
    for (fs::directory_iterator it(root, error), end; !error && it != end; it.increment(error))
      if (it->is_directory(error) && it->path().filename().string()[0] != '.') folders.insert(it->path().filename().string());
    for (const std::string& name : folders) {
      size_t before = out.size();
      look(Folder(root + "/" + name, name + "/"));
      for (size_t i = before; i < out.size(); ++i) {
        for (std::vector<std::string>* commands : {&out[i].build, &out[i].test})
          for (std::string& command : *commands) command = "cd '" + name + "' && " + command;
        for (std::vector<std::string>* globs : {&out[i].results, &out[i].leaveOut})
          for (std::string& glob : *globs) glob = name + "/" + glob;
      }
    }
  }
  std::stable_sort(out.begin(), out.end(), [](const BuildSystem& a, const BuildSystem& b) { return !a.test.empty() && b.test.empty(); });
  return out;
}

std::string configurationFor(const BuildSystem& s, const std::vector<BuildSystem>& others) {
  std::string out = "# How Elm Cart reads, builds and tests this project. Told from " + s.file + ": " + s.name + ".\n";
  for (const BuildSystem& other : others)
    if (other.file != s.file) out += "# Also there: " + other.name + " (" + other.file + ").\n";
  for (const std::string& note : s.notes) out += "# To do: " + note + "\n";
  out += "\n[read]\n# What is not read, as globs; what .gitignore names is left out as well (gitignore = false changes that).\n";
  out += "leave-out = " + listOf(s.leaveOut) + "\n";
  out += "# Which files are tests; left out, the usual names are.\n# tests = [\"tests/**\"]\n";
  out += "\n[build]\n# Run in order in a scratch copy of the project, never in the project itself.\ncommands = " + listOf(s.build) + "\nseconds = 1800\n";
  out += "\n[test]\n# Run after a build that worked.\ncommands = " + listOf(s.test) + "\n";
  out += s.results.empty() ? "# Files in which the test command leaves its results; without any, what it prints is read.\n# results = [\"results.xml\"]\n" : "# Files in which the test command leaves its results.\nresults = " + listOf(s.results) + "\n";
  out += "# How often the project is tested as it is, to learn which tests are flaky.\nbaseline-runs = 2\nseconds = 600\n";
  out += "# Coverage files that the test command writes, if any: then it is told which changed lines no test executes.\n# coverage = [\"coverage.info\"]\n";
  out += "\n# A command whose output and exit code must stay the same, beside the tests.\n# [[witness]]\n# name = \"a day in the office\"\n# command = \"./office --day 3\"\n";
  return out;
}

}  // namespace elmcart
