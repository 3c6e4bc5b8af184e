// What lives longer owns it.
#include <memory>

class Berth {
 public:
  int number = 0;
};
std::unique_ptr<Berth> current;

void moor() {
  current = std::make_unique<Berth>();
  current->number = 4;
}
