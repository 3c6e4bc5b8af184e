#include "../ledgers/dues.h"

// Near miss: a layer that may.
int evening() {
  DuesBook::book().pay(1);  // finding: coupling.hidden-dependency
  return DuesBook::book().total();
}

// One is enough, says the configuration.
class Wharfinger {  // finding: single.meant-single
 public:
  void walk() { ++rounds_; }

 private:
  int rounds_ = 0;
};

void round() {
  Wharfinger one;
  one.walk();
}
