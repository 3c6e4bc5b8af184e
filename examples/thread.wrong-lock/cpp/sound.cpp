// One lock, which lives as long as the slot.
#include <mutex>

class TideTable {
 public:
  static TideTable* table() {
    std::lock_guard<std::mutex> hold(making_);
    if (table_ == nullptr) table_ = new TideTable;
    return table_;
  }
  TideTable(const TideTable&) = delete;

 private:
  TideTable() = default;
  static inline TideTable* table_ = nullptr;
  static inline std::mutex making_;
};
