// Tested again inside of the lock.
#include <atomic>
#include <mutex>

class TideTable {
 public:
  static TideTable* table() {
    if (table_.load() == nullptr) {
      std::lock_guard<std::mutex> hold(making_);
      if (table_.load() == nullptr) table_.store(new TideTable);
    }
    return table_.load();
  }
  TideTable(const TideTable&) = delete;

 private:
  TideTable() = default;
  static inline std::atomic<TideTable*> table_{nullptr};
  static inline std::mutex making_;
};
