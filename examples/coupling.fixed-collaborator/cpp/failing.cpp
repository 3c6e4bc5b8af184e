// Each test of the navigator reads real files.
#include <fstream>
#include <string>

class ChartStore {
 public:
  int depth(const std::string& place) {
    std::ifstream in(place);
    int depth = 0;
    in >> depth;
    return depth;
  }
};

class Navigator {
 public:
  Navigator() : store_() {}
  int depth() { return store_.depth("roads"); }

 private:
  ChartStore store_;
};
