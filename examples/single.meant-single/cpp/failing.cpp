#include <vector>

// There is only one cargo scale in the harbour.
class CargoScale {
 public:
  void weigh(int crates) { weighed_ += crates; }

 private:
  int weighed_ = 0;
};

void unload() {
  CargoScale scale;
  scale.weigh(3);
}

void load() {
  CargoScale scale;
  scale.weigh(4);
}
