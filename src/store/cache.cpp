#include "store/cache.h"

#include <sqlite3.h>
#include <sys/stat.h>
#include <xxhash.h>

#include <chrono>
#include <filesystem>

namespace elmcart {
namespace fs = std::filesystem;

// ----- keys

struct KeyMaker::State {
  XXH3_state_t* hash = XXH3_createState();
  State() { XXH3_128bits_reset(hash); }
  ~State() { XXH3_freeState(hash); }
};

KeyMaker::KeyMaker() : state_(std::make_unique<State>()) {}
KeyMaker::~KeyMaker() = default;

KeyMaker& KeyMaker::add(std::string_view part) {
  add(static_cast<uint64_t>(part.size()));
  XXH3_128bits_update(state_->hash, part.data(), part.size());
  return *this;
}

KeyMaker& KeyMaker::add(uint64_t number) {
  XXH3_128bits_update(state_->hash, &number, sizeof number);
  return *this;
}

CacheKey KeyMaker::key() const {
  XXH128_canonical_t canonical;
  XXH128_canonicalFromHash(&canonical, XXH3_128bits_digest(state_->hash));
  CacheKey out;
  static_assert(sizeof canonical.digest == sizeof(CacheKey));
  std::copy(std::begin(canonical.digest), std::end(canonical.digest), out.begin());
  return out;
}

// ----- the database

namespace {

// The form of the tables; a database of another is begun anew.
constexpr int kForm = 1;
constexpr char kFileName[] = "lowered.sqlite";
// What a row weighs beside its content.
constexpr char kTables[] =
    "CREATE TABLE IF NOT EXISTS kept (key BLOB PRIMARY KEY, used INTEGER NOT NULL, sum INTEGER NOT NULL, content BLOB NOT NULL);"
    "CREATE INDEX IF NOT EXISTS kept_used ON kept (used);";

int64_t sumOf(std::string_view content) { return static_cast<int64_t>(XXH3_64bits(content.data(), content.size())); }

class Statement {
 public:
  Statement(sqlite3* db, const char* sql) { good_ = sqlite3_prepare_v2(db, sql, -1, &statement_, nullptr) == SQLITE_OK; }
  ~Statement() { sqlite3_finalize(statement_); }
  Statement(const Statement&) = delete;
  Statement& operator=(const Statement&) = delete;
  bool good() const { return good_; }
  sqlite3_stmt* get() const { return statement_; }
  int step() { return sqlite3_step(statement_); }
  void again() { sqlite3_reset(statement_); }

 private:
  sqlite3_stmt* statement_ = nullptr;
  bool good_ = false;
};

int64_t numberOf(sqlite3* db, const char* sql) {
  Statement statement(db, sql);
  return statement.good() && statement.step() == SQLITE_ROW ? sqlite3_column_int64(statement.get(), 0) : -1;
}

void removeDatabase(const std::string& path) {
  std::error_code error;
  for (const char* end : {"", "-wal", "-shm", "-journal"}) fs::remove(path + end, error);
}

}  // namespace

std::unique_ptr<Cache> Cache::open(const std::string& folder, std::string& why, uint64_t limit) {
  std::error_code error;
  fs::create_directories(folder, error);
  if (error) {
    why = folder + ": " + error.message();
    return nullptr;
  }
  std::unique_ptr<Cache> cache(new Cache);
  cache->limit_ = limit;
  cache->path_ = (fs::path(folder) / kFileName).string();
  auto days = std::chrono::duration_cast<std::chrono::hours>(std::chrono::system_clock::now().time_since_epoch()).count() / 24;
  cache->today_ = days;
  if (cache->openFile(cache->path_, why)) return cache;
  // Only a file that is none of ours or damaged is begun anew; one that cannot
  // be reached stays.
  if (cache->damaged_) {
    cache->close();
    cache->rebuilt_ = why;
    cache->damaged_ = false;
    removeDatabase(cache->path_);
    if (cache->openFile(cache->path_, why)) return cache;
  }
  return nullptr;
}

bool Cache::run(const char* sql) { return sqlite3_exec(db_, sql, nullptr, nullptr, nullptr) == SQLITE_OK; }

bool Cache::openFile(const std::string& path, std::string& why) {
  std::error_code error;
  bool there = fs::exists(path, error) && fs::file_size(path, error) > 0;
  auto refuse = [&](std::string reason, bool damage) {
    why = path + ": " + std::move(reason);
    damaged_ = damage;
    return false;
  };
  if (sqlite3_open_v2(path.c_str(), &db_, SQLITE_OPEN_READWRITE | SQLITE_OPEN_CREATE | SQLITE_OPEN_FULLMUTEX, nullptr) != SQLITE_OK) return refuse(sqlite3_errmsg(db_), false);
  sqlite3_busy_timeout(db_, 2000);
  if (there) {
    int64_t form = numberOf(db_, "PRAGMA user_version");
    if (form < 0) {
      int code = sqlite3_errcode(db_);
      return refuse(sqlite3_errmsg(db_), code == SQLITE_NOTADB || code == SQLITE_CORRUPT);
    }
    if (form != kForm) return refuse("was written by another version", true);
  } else {
    run("PRAGMA page_size = 16384; PRAGMA auto_vacuum = INCREMENTAL;");
  }
  // What is lost in a crash is only read again; damage is noticed by the sums.
  run("PRAGMA journal_mode = MEMORY; PRAGMA synchronous = OFF;");
  if (!run(kTables) || !run(("PRAGMA user_version = " + std::to_string(kForm)).c_str())) {
    int code = sqlite3_errcode(db_);
    return refuse(sqlite3_errmsg(db_), code == SQLITE_NOTADB || code == SQLITE_CORRUPT);
  }
  if (sqlite3_prepare_v2(db_, "SELECT used, sum, content FROM kept WHERE key = ?", -1, &find_, nullptr) != SQLITE_OK) return refuse(sqlite3_errmsg(db_), true);
  return true;
}

void Cache::close() {
  sqlite3_finalize(find_);
  find_ = nullptr;
  sqlite3_close(db_);
  db_ = nullptr;
}

Cache::~Cache() { close(); }

std::optional<std::string> Cache::get(const CacheKey& key) {
  std::string content;
  int64_t sum = 0;
  {
    std::lock_guard<std::mutex> lock(mutex_);
    sqlite3_bind_blob(find_, 1, key.data(), static_cast<int>(key.size()), SQLITE_STATIC);
    int code = sqlite3_step(find_);
    bool found = code == SQLITE_ROW;
    if (code == SQLITE_CORRUPT || code == SQLITE_NOTADB) damaged_ = true;
    if (found) {
      if (sqlite3_column_int64(find_, 0) != today_) used_.push_back(key);
      sum = sqlite3_column_int64(find_, 1);
      const void* bytes = sqlite3_column_blob(find_, 2);
      content.assign(static_cast<const char*>(bytes ? bytes : ""), static_cast<size_t>(sqlite3_column_bytes(find_, 2)));
    }
    sqlite3_reset(find_);
    if (!found) return std::nullopt;
  }
  if (sumOf(content) != sum) return std::nullopt;
  return content;
}

void Cache::put(const CacheKey& key, std::string content) {
  std::lock_guard<std::mutex> lock(mutex_);
  pending_.emplace_back(key, std::move(content));
}

void Cache::write() {
  std::vector<std::pair<CacheKey, std::string>> pending;
  std::vector<CacheKey> used;
  {
    std::lock_guard<std::mutex> lock(mutex_);
    pending.swap(pending_);
    used.swap(used_);
    if (damaged_) {  // begun anew with what this run knows
      damaged_ = false;
      close();
      removeDatabase(path_);
      std::string why;
      if (!openFile(path_, why)) return;
    }
  }
  if ((pending.empty() && used.empty()) || !db_ || !run("BEGIN IMMEDIATE")) return;
  {
    Statement keep(db_, "INSERT OR REPLACE INTO kept (key, used, sum, content) VALUES (?, ?, ?, ?)");
    for (const auto& [key, content] : pending) {
      if (!keep.good()) break;
      sqlite3_bind_blob(keep.get(), 1, key.data(), static_cast<int>(key.size()), SQLITE_STATIC);
      sqlite3_bind_int64(keep.get(), 2, today_);
      sqlite3_bind_int64(keep.get(), 3, sumOf(content));
      sqlite3_bind_blob64(keep.get(), 4, content.data(), content.size(), SQLITE_STATIC);
      if (keep.step() != SQLITE_DONE) break;
      keep.again();
    }
    Statement touch(db_, "UPDATE kept SET used = ? WHERE key = ?");
    for (const CacheKey& key : used) {
      if (!touch.good()) break;
      sqlite3_bind_int64(touch.get(), 1, today_);
      sqlite3_bind_blob(touch.get(), 2, key.data(), static_cast<int>(key.size()), SQLITE_STATIC);
      touch.step();
      touch.again();
    }
  }
  if (!run("COMMIT")) run("ROLLBACK");
  // Over the limit: what was used longest ago goes, down to three quarters.
  int64_t page = numberOf(db_, "PRAGMA page_size");
  auto bytes = [&] { return static_cast<uint64_t>(std::max<int64_t>(0, (numberOf(db_, "PRAGMA page_count") - numberOf(db_, "PRAGMA freelist_count")) * page)); };
  for (int round = 0; round < 64 && bytes() > limit_ && numberOf(db_, "SELECT count(*) FROM kept") > 0; ++round) {
    run("DELETE FROM kept WHERE rowid IN (SELECT rowid FROM kept ORDER BY used, rowid LIMIT 1 + (SELECT count(*) FROM kept) / 4)");
    run("PRAGMA incremental_vacuum");
  }
}

}  // namespace elmcart
