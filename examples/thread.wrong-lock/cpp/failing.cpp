// Each call has a lock of its own, which keeps nobody out.
#include <mutex>

class TideTable {
 public:
  static TideTable* table() {
    std::mutex making;
    std::lock_guard<std::mutex> hold(making);
    if (table_ == nullptr) table_ = new TideTable;
    return table_;
  }
  TideTable(const TideTable&) = delete;

 private:
  TideTable() = default;
  static inline TideTable* table_ = nullptr;
};
