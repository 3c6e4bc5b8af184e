// Read where the program is put together, and handed in.
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

size_t width(const TideTable& table) { return table.first().size(); }

int main() {
  TideTable table;
  return width(table) > 80 ? 1 : 0;
}
