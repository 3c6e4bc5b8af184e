// A test hands in a store of its own.
#include <fstream>
#include <string>

class ChartStore {
 public:
  virtual ~ChartStore() = default;
  virtual int depth(const std::string& place) {
    std::ifstream in(place);
    int depth = 0;
    in >> depth;
    return depth;
  }
};

class Navigator {
 public:
  explicit Navigator(ChartStore& store) : store_(store) {}
  int depth() { return store_.depth("roads"); }

 private:
  ChartStore& store_;
};
