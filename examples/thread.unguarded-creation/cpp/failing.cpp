// The table is made on first use, and nothing keeps a second first user out.
#include <atomic>
#include <chrono>
#include <cstdio>
#include <thread>
#include <vector>

class TideTable {
 public:
  static TideTable* table() {
    if (table_ == nullptr) table_ = new TideTable;
    return table_;
  }
  TideTable(const TideTable&) = delete;
  static inline std::atomic<int> made{0};

 private:
  TideTable() {
    std::this_thread::sleep_for(std::chrono::milliseconds(20));  // works out the year's tides
    ++made;
  }
  static inline TideTable* table_ = nullptr;
};

int main() {
  std::vector<std::thread> pilots;
  for (int i = 0; i < 4; ++i) pilots.emplace_back([] { TideTable::table(); });
  for (std::thread& pilot : pilots) pilot.join();
  std::printf("%d made\n", TideTable::made.load());
  return TideTable::made == 1 ? 0 : 1;
}
