// Correct; but each hour of each ship pays for the lock.
#include <mutex>

class TideTable {
 public:
  static TideTable& table() {
    std::lock_guard<std::mutex> hold(making_);
    if (table_ == nullptr) table_ = new TideTable;
    return *table_;
  }
  TideTable(const TideTable&) = delete;
  int height(int hour) const { return heights_[hour % 3]; }

 private:
  TideTable() = default;
  int heights_[3] = {3, 1, 4};
  static inline TideTable* table_ = nullptr;
  static inline std::mutex making_;
};

int lowest() {
  int low = 100;
  for (int hour = 0; hour < 24; ++hour)
    if (TideTable::table().height(hour) < low) low = TideTable::table().height(hour);
  return low;
}
