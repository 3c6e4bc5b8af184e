// The language makes it once: whoever comes second waits (C++11 and later).
#include <atomic>
#include <chrono>
#include <cstdio>
#include <thread>
#include <vector>

class TideTable {
 public:
  static TideTable& table() {
    static TideTable instance;
    return instance;
  }
  TideTable(const TideTable&) = delete;
  static inline std::atomic<int> made{0};

 private:
  TideTable() {
    std::this_thread::sleep_for(std::chrono::milliseconds(20));  // works out the year's tides
    ++made;
  }
};

int main() {
  std::vector<std::thread> pilots;
  for (int i = 0; i < 4; ++i) pilots.emplace_back([] { TideTable::table(); });
  for (std::thread& pilot : pilots) pilot.join();
  std::printf("%d made\n", TideTable::made.load());
  return TideTable::made == 1 ? 0 : 1;
}
