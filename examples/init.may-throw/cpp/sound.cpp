// Made where a failure can be told.
#include <cstdio>
#include <exception>
#include <fstream>
#include <stdexcept>

class TideTable {
 public:
  TideTable() {
    std::ifstream in("tides.txt");
    if (!in) throw std::runtime_error("tides.txt");
    in >> first_;
  }
  int first() const { return first_; }

 private:
  int first_ = 0;
};

int main() {
  try {
    TideTable table;
    std::printf("%d\n", table.first());
  } catch (const std::exception& e) {
    std::printf("no tides: %s\n", e.what());
    return 1;
  }
}
