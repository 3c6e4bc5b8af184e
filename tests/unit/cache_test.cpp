// The binary form of lowered files and the cache that keeps it.
#include <gtest/gtest.h>
#include <sqlite3.h>

#include "assess/analysis.h"
#include "lowered/binary.h"
#include "report/json.h"
#include "support/folder.h"

namespace elmcart {
namespace {

std::vector<std::pair<std::string, std::string>> samples() {
  std::vector<std::pair<std::string, std::string>> out;
  for (const auto& entry : fs::recursive_directory_iterator(ELMCART_SAMPLES)) {
    if (!entry.is_regular_file()) continue;
    auto text = readWhole(entry.path().string());
    if (text && languageOf(entry.path().string(), *text)) out.emplace_back(entry.path().filename().string(), *text);
  }
  return out;
}

TEST(Binary, GivesEveryFieldBack) {
  size_t files = 0;
  for (const auto& [name, text] : samples()) {
    LoweredFile before = lowerText(name, text), after;
    ASSERT_TRUE(fromBinary(toBinary(before), after)) << name;
    ASSERT_EQ(before.nodes.size(), after.nodes.size()) << name;
    for (NodeId n = 0; n < before.nodes.size(); ++n) {
      const Node &a = before[n], &b = after[n];
      ASSERT_TRUE(a.kind == b.kind && a.role == b.role && a.detail == b.detail && a.modifiers == b.modifiers && a.nameBegin == b.nameBegin && a.span == b.span && a.firstChild == b.firstChild && a.nextSibling == b.nextSibling)
          << name << " node " << n;
      ASSERT_EQ(before.name(n), after.name(n)) << name;
    }
    EXPECT_EQ(before.comments, after.comments) << name;
    EXPECT_EQ(before.notes, after.notes) << name;
    EXPECT_EQ(before.textSize, after.textSize);
    EXPECT_EQ(before.unreadBytes, after.unreadBytes);
    EXPECT_EQ(before.problem, after.problem);
    ++files;
  }
  EXPECT_GT(files, 50u);
}

TEST(Binary, RefusesWhatIsCutOffAndBearsWhatIsChanged) {
  std::string bytes = toBinary(lowerText("berths.java", "class Berths { static Berths only = new Berths(); /* elmcart: accept x because y */ int n; void add() { n++; } }\n"));
  for (size_t length = 0; length < bytes.size(); ++length) {
    LoweredFile file;
    EXPECT_FALSE(fromBinary(std::string_view(bytes).substr(0, length), file)) << length;
  }
  for (size_t at = 0; at < bytes.size(); ++at)
    for (int bit = 0; bit < 8; ++bit) {
      std::string changed = bytes;
      changed[at] = static_cast<char>(changed[at] ^ (1 << bit));
      LoweredFile file;
      if (!fromBinary(changed, file)) continue;
      // Whatever is accepted is a tree: every link leads forward and inside.
      for (NodeId n = 0; n < file.nodes.size(); ++n) {
        EXPECT_TRUE(file[n].firstChild == kNoNode || (file[n].firstChild > n && file[n].firstChild < file.nodes.size()));
        EXPECT_TRUE(file[n].nextSibling == kNoNode || (file[n].nextSibling > n && file[n].nextSibling < file.nodes.size()));
        EXPECT_LT(file[n].name, file.names.size());
      }
    }
}

CacheKey keyOf(std::string_view word) { return KeyMaker().add(word).key(); }

std::unique_ptr<Cache> opened(const Folder& folder, uint64_t limit = uint64_t{1} << 30) {
  std::string why;
  auto cache = Cache::open(folder.path(), why, limit);
  EXPECT_TRUE(cache) << why;
  return cache;
}

TEST(CacheKeys, TellPartsApart) {
  EXPECT_NE(KeyMaker().add("ab").add("c").key(), KeyMaker().add("a").add("bc").key());
  EXPECT_NE(KeyMaker().add("a").key(), KeyMaker().add("a").add("").key());
  EXPECT_EQ(KeyMaker().add("a").add(7).key(), KeyMaker().add("a").add(7).key());
}

TEST(CacheOnDisk, KeepsFromOneRunToTheNext) {
  Folder folder;
  {
    auto cache = opened(folder);
    cache->put(keyOf("berth"), "four");
    cache->put(keyOf("empty"), "");
    cache->write();
  }
  auto cache = opened(folder);
  EXPECT_TRUE(cache->rebuilt().empty());
  EXPECT_EQ(cache->get(keyOf("berth")), "four");
  EXPECT_EQ(cache->get(keyOf("empty")), "");
  EXPECT_FALSE(cache->get(keyOf("pier")));
}

TEST(CacheOnDisk, ADamagedRowIsNotThere) {
  Folder folder;
  {
    auto cache = opened(folder);
    cache->put(keyOf("berth"), std::string(100000, 'b'));
    cache->write();
  }
  std::string bytes = folder.read("lowered.sqlite");
  size_t at = bytes.find(std::string(1000, 'b'));
  ASSERT_NE(at, std::string::npos);
  bytes[at + 500] = 'x';
  folder.write("lowered.sqlite", bytes);
  EXPECT_FALSE(opened(folder)->get(keyOf("berth")));
}

TEST(CacheOnDisk, WhatIsNoDatabaseIsBegunAnew) {
  for (const std::string& content : {std::string("no database at all, but a text that is long enough to be looked at"), std::string(8192, '\0'), std::string("SQLite format 3\0broken", 22) + std::string(5000, 'z')}) {
    Folder folder;
    folder.write("lowered.sqlite", content);
    auto cache = opened(folder);
    ASSERT_TRUE(cache);
    EXPECT_FALSE(cache->get(keyOf("berth")));
    cache->put(keyOf("berth"), "four");
    cache->write();
    cache = opened(folder);
    EXPECT_EQ(cache->get(keyOf("berth")), "four");
  }
}

TEST(CacheOnDisk, EveryDamageIsBorne) {
  Folder folder;
  {
    auto cache = opened(folder);
    for (int i = 0; i < 50; ++i) cache->put(keyOf("row " + std::to_string(i)), "content " + std::to_string(i));
    cache->write();
  }
  std::string whole = folder.read("lowered.sqlite");
  for (size_t step = 0; step < 200; ++step) {
    std::string bytes = whole;
    size_t at = step * 7919 % bytes.size();
    if (step % 3 == 0) bytes.resize(at);
    else for (size_t i = at; i < std::min(at + 64, bytes.size()); ++i) bytes[i] = static_cast<char>(bytes[i] ^ 0x5a);
    folder.write("lowered.sqlite", bytes);
    auto cache = opened(folder);
    ASSERT_TRUE(cache) << step;
    for (int i = 0; i < 50; ++i) {
      std::string there = "content " + std::to_string(i);
      EXPECT_EQ(cache->get(keyOf("row " + std::to_string(i))).value_or(there), there) << step;
    }
    cache->put(keyOf("new"), "new");
    cache->write();
  }
}

TEST(CacheOnDisk, AnotherFormIsBegunAnew) {
  Folder folder;
  opened(folder)->put(keyOf("berth"), "four");
  {
    auto cache = opened(folder);
    cache->put(keyOf("berth"), "four");
    cache->write();
  }
  sqlite3* db = nullptr;
  ASSERT_EQ(sqlite3_open((folder / "lowered.sqlite").c_str(), &db), SQLITE_OK);
  sqlite3_exec(db, "PRAGMA user_version = 99", nullptr, nullptr, nullptr);
  sqlite3_close(db);
  auto cache = opened(folder);
  EXPECT_NE(cache->rebuilt().find("another version"), std::string::npos);
  EXPECT_FALSE(cache->get(keyOf("berth")));
}

TEST(CacheOnDisk, KeepsToItsLimit) {
  Folder folder;
  auto cache = opened(folder, 1 << 20);
  for (int i = 0; i < 60; ++i) {
    cache->put(keyOf("row " + std::to_string(i)), std::string(100000, static_cast<char>('a' + i % 26)));
    cache->write();
  }
  EXPECT_LT(fs::file_size(folder / "lowered.sqlite"), 3u << 20);
  EXPECT_TRUE(cache->get(keyOf("row 59")));
  EXPECT_FALSE(cache->get(keyOf("row 0")));
}

std::string surveyed(const std::string& root, Cache* cache, size_t* fromCache, unsigned jobs = 2) {
  Config config;
  auto tree = readTree(root, loadOptionsOf(config, jobs));
  EXPECT_TRUE(tree.ok());
  auto a = analyse(std::move(*tree), config, jobs, true, cache);
  if (fromCache) *fromCache = a->fromCache;
  return jsonText(surveyJson(*a, true)) + jsonText(assessJson(*a, true));
}

TEST(CachedTree, GivesTheSameAndReadsOnlyWhatChanged) {
  Folder folder, kept;
  size_t count = 0;
  for (const auto& [name, text] : samples()) folder.write(std::to_string(count++) + "_" + name, text);
  auto cache = opened(kept);
  size_t fromCache = 0;
  std::string plain = surveyed(folder.path(), nullptr, nullptr);
  EXPECT_EQ(surveyed(folder.path(), cache.get(), &fromCache), plain);
  EXPECT_EQ(fromCache, 0u);
  EXPECT_EQ(surveyed(folder.path(), cache.get(), &fromCache, 8), plain);
  EXPECT_EQ(fromCache, count);
  EXPECT_EQ(surveyed(folder.path(), cache.get(), &fromCache, 1), plain);
  folder.write("new.py", "pilots = []\n\ndef add(name):\n    pilots.append(name)\n");
  std::string more = surveyed(folder.path(), cache.get(), &fromCache);
  EXPECT_EQ(fromCache, count);
  EXPECT_NE(more.find("pilots"), std::string::npos);
  EXPECT_EQ(more, surveyed(folder.path(), nullptr, nullptr));
}

// A macro that one file defines decides how the others are read.
TEST(CachedTree, WhatIsLearntFromTheWholeTreeCounts) {
  Folder folder, kept;
  folder.write("quay.h", "#define QUAY_API\n");
  folder.write("berths.cpp", "#include \"quay.h\"\nclass QUAY_API Berths {\n public:\n  static Berths& get() { static Berths b; return b; }\n private:\n  Berths() {}\n  int n_ = 0;\n};\n");
  auto cache = opened(kept);
  size_t fromCache = 0;
  surveyed(folder.path(), cache.get(), nullptr);
  surveyed(folder.path(), cache.get(), &fromCache);
  EXPECT_EQ(fromCache, 2u);
  folder.write("quay.h", "#define QUAY_API\n#define PIER_API\n");
  std::string after = surveyed(folder.path(), cache.get(), &fromCache);
  EXPECT_EQ(fromCache, 0u);
  EXPECT_EQ(after, surveyed(folder.path(), nullptr, nullptr));
}

}  // namespace
}  // namespace elmcart
