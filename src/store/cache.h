// The cache on disk: what was read from a file's bytes need not be read again.
//
// One SQLite database in a folder of the user's choice. A row is found by a
// 128-bit hash of all that its content depends on (see Key), and bears a
// 64-bit hash of its content, so a damaged row is noticed and counts as not
// there. A database that cannot be used (damaged, of another form, not a
// database) is removed and begun anew. Nothing in the cache is ever trusted
// without that check, and a cache that cannot be opened or written only costs
// time: no call here fails.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <mutex>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

struct sqlite3;
struct sqlite3_stmt;

namespace elmcart {

using CacheKey = std::array<uint8_t, 16>;

// Gathers what a row depends on.
class KeyMaker {
 public:
  KeyMaker();
  ~KeyMaker();
  KeyMaker(const KeyMaker&) = delete;
  KeyMaker& operator=(const KeyMaker&) = delete;
  KeyMaker& add(std::string_view part);
  KeyMaker& add(uint64_t number);
  CacheKey key() const;

 private:
  struct State;
  std::unique_ptr<State> state_;
};

class Cache {
 public:
  // Opens, or begins, the cache in `folder`. Null when that cannot be done;
  // `why` then tells the reason. `limit`: bytes kept at most, oldest use first
  // to go.
  static std::unique_ptr<Cache> open(const std::string& folder, std::string& why, uint64_t limit = uint64_t{1} << 30);
  ~Cache();
  Cache(const Cache&) = delete;
  Cache& operator=(const Cache&) = delete;

  // Safe to be called from several threads.
  std::optional<std::string> get(const CacheKey& key);

  // Kept at the next write().
  void put(const CacheKey& key, std::string content);
  // Writes what was put, notes what was used, and keeps to the limit.
  void write();

  // Why a cache that was there had to be begun anew; empty otherwise.
  const std::string& rebuilt() const { return rebuilt_; }

 private:
  Cache() = default;
  bool openFile(const std::string& path, std::string& why);
  bool run(const char* sql);
  void close();

  sqlite3* db_ = nullptr;
  sqlite3_stmt* find_ = nullptr;
  std::mutex mutex_;
  std::vector<std::pair<CacheKey, std::string>> pending_;
  std::vector<CacheKey> used_;
  std::string path_, rebuilt_;
  uint64_t limit_ = 0;
  int64_t today_ = 0;
  bool damaged_ = false;
};

}  // namespace elmcart
