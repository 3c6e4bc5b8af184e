// The file is read before main begins, in every program that links this.
#include <fstream>
#include <string>

class TideTable {
 public:
  TideTable() {
    std::ifstream in("tides.txt");
    std::getline(in, first_);
  }
  const std::string& first() const { return first_; }

 private:
  std::string first_;
};

TideTable tideTable;
