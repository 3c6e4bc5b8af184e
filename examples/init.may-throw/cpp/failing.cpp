// It throws before main, where nobody can catch it.
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

TideTable tideTable;
