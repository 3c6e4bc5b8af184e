// The cache as a user meets it: the same answer, sooner, and never a wrong one.
#include <sys/stat.h>

#include "blackbox/program.h"

namespace elmcart {
namespace {

void writeOffice(const Folder& folder) {
  folder.write("berths.java", "package office;\nclass Berths {\n  private static Berths berths;\n  private int taken;\n  private Berths() {}\n  static Berths get() {\n    if (berths == null) {\n      berths = new Berths();\n    }\n    return berths;\n  }\n  void take() {\n    taken++;\n  }\n}\n");
  folder.write("pilots.py", "pilots = []\n\ndef add(name):\n    pilots.append(name)\n");
  folder.write("mast.cpp", "class Mast {\n public:\n  static Mast& get() { static Mast m; return m; }\n private:\n  Mast() {}\n  int flags_ = 0;\n};\n");
}

struct Said {
  std::string out, err;
  int exitCode;
  bool operator==(const Said&) const = default;
};
Said said(const std::string& arguments) {
  RunResult run = elmcart(arguments);
  return {run.out, run.err, run.exitCode};
}
std::ostream& operator<<(std::ostream& out, const Said& said) { return out << said.exitCode << "\n" << said.out << said.err; }

TEST(CacheOfTheProgram, SaysTheSameColdAndWarmForAnyNumberOfJobs) {
  Folder folder, cache;
  writeOffice(folder);
  folder.write("broken.cpp", std::string("int x;\0\0", 8));  // told each time
  for (const std::string command : {"survey --format json ", "survey --all ", "survey --format csv ", "assess --format json ", "assess --gate 20 ", "assess --accepted "}) {
    Said plain = said(command + "--no-cache " + folder.path());
    for (const std::string jobs : {"1", "8"})
      for (int turn = 0; turn < 2; ++turn) EXPECT_EQ(said(command + "--jobs " + jobs + " --cache " + cache.path() + " " + folder.path()), plain) << command << jobs;
  }
}

TEST(CacheOfTheProgram, NoticesEveryChange) {
  Folder folder, cache;
  writeOffice(folder);
  std::string with = "survey --format csv --cache " + cache.path() + " " + folder.path(), without = "survey --format csv --no-cache " + folder.path();
  auto both = [&] {
    Said fresh = said(without);
    EXPECT_EQ(said(with), fresh);
    EXPECT_EQ(said(with), fresh);
    return fresh.out;
  };
  std::string first = both();
  folder.write("pilots.py", "pilots = []\ntugs = []\n\ndef add(name):\n    pilots.append(name)\n    tugs.append(name)\n");
  std::string second = both();
  EXPECT_NE(first, second);
  fs::rename(folder / "pilots.py", folder / "tugs.py");
  std::string third = both();
  EXPECT_NE(second, third);
  fs::remove(folder / "tugs.py");
  both();
  folder.write("elmcart.toml", "[read]\nleave-out = [\"*.cpp\"]\n");
  EXPECT_EQ(both().find("Mast"), std::string::npos);
}

TEST(CacheOfTheProgram, IsNoticedWhenDamaged) {
  Folder folder, cache;
  writeOffice(folder);
  std::string with = "assess --format json --cache " + cache.path() + " " + folder.path();
  Said plain = said("assess --format json --no-cache " + folder.path());
  EXPECT_EQ(said(with), plain);
  std::string bytes = cache.read("lowered.sqlite");
  ASSERT_GT(bytes.size(), 4096u);
  for (size_t from : {size_t{0}, size_t{60}, bytes.size() / 3, bytes.size() / 2, bytes.size() - 3000}) {
    std::string damaged = bytes;
    for (size_t i = from; i < std::min(from + 2000, damaged.size()); ++i) damaged[i] = static_cast<char>(damaged[i] + 1);
    cache.write("lowered.sqlite", damaged);
    Said now = said(with);
    EXPECT_EQ(now.out, plain.out) << from;
    EXPECT_EQ(now.exitCode, plain.exitCode) << from;
    EXPECT_EQ(said(with).out, plain.out) << from;
  }
  cache.write("lowered.sqlite", "not a database, but the user's own words, by mistake in this place");
  Said now = said(with);
  EXPECT_EQ(now.out, plain.out);
  EXPECT_NE(now.err.find("begun anew"), std::string::npos) << now.err;
}

TEST(CacheOfTheProgram, OneThatCannotBeKeptIsNoHindrance) {
  Folder folder;
  writeOffice(folder);
  folder.write("taken", "a file where the folder should be");
  Said run = said("survey --format csv --cache " + (folder / "taken") + " " + folder.path());
  EXPECT_EQ(run.exitCode, 0) << run.err;
  EXPECT_NE(run.err.find("no cache: "), std::string::npos) << run.err;
  EXPECT_EQ(run.out, said("survey --format csv --no-cache " + folder.path()).out);
}

TEST(CacheOfTheProgram, NothingIsKeptWhenNothingIsToBe) {
  Folder folder, cache;
  writeOffice(folder);
  EXPECT_EQ(said("survey --no-cache --cache " + (cache / "kept") + " " + folder.path()).exitCode, 0);
  EXPECT_FALSE(fs::exists(cache / "kept"));
}

// A language is told from a script's first line and from a header's text.
TEST(Languages, AreToldFromTheTextWhereTheNameDoesNotTell) {
  Folder folder;
  folder.write("bin/office", "#!/usr/bin/env -S python3.11 -u\npilots = []\n\ndef add(name):\n    pilots.append(name)\n");
  folder.write("bin/mast", "#! /usr/bin/node\nlet flags = 0;\nfunction show() { flags += 1; }\nshow();\n");
  folder.write("bin/shell", "#!/bin/sh\necho no\n");
  folder.write("LICENSE", "no source at all\n");
  folder.write("plain.h", "inline int tide = 0;\ninline void rise() { ++tide; }\n");
  folder.write("book.h", "#import <Foundation/Foundation.h>\n@interface HOBook : NSObject\n+ (instancetype)shared;\n@end\n");
  folder.write("book.m", "#import \"book.h\"\n@implementation HOBook\n+ (instancetype)shared {\n  static HOBook *book = nil;\n  if (!book) book = [[self alloc] init];\n  return book;\n}\n@end\n");
  auto json = jsonOf(elmcart("survey --format json " + folder.path()));
  std::map<std::string, std::string> languages;
  for (const auto& e : json["entities"]) languages[e["name"]] = e["language"];
  EXPECT_EQ(languages["pilots"], "python");
  EXPECT_EQ(languages["flags"], "javascript");
  EXPECT_EQ(languages["HOBook"], "objc");
  EXPECT_EQ(languages["tide"], "cpp");
  EXPECT_EQ(json["unread"]["bytes"], 0);
}

TEST(Languages, TellWhatTheyPromiseAndWhereItIsWritten) {
  RunResult list = elmcart("explain languages");
  EXPECT_EQ(list.exitCode, 0);
  for (const char* id : {"cpp", "java", "python", "javascript", "typescript", "tsx", "go", "csharp", "php", "kotlin", "swift", "dart", "objc"}) {
    EXPECT_NE(list.out.find(std::string(" ") + id + " "), std::string::npos) << id;
    RunResult one = elmcart(std::string("explain ") + id);
    EXPECT_EQ(one.exitCode, 0) << id;
    EXPECT_NE(one.out.find("what the language guarantees about shared state"), std::string::npos) << id;
    // Each has threads or rules them out, and says by which section.
    EXPECT_NE(one.out.find("threads that share memory exist\n    "), std::string::npos) << id << "\n" << one.out;
  }
  EXPECT_NE(elmcart("explain PHP").out.find("no  threads that share memory"), std::string::npos);
  EXPECT_EQ(elmcart("explain Fortran " + std::string(ELMCART_DEMO)).exitCode, 2);
}

}  // namespace
}  // namespace elmcart
