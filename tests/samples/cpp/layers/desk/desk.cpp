#include "../ledgers/dues.h"

// One is enough, says the configuration.
class Wharfinger {  // finding: single.meant-single
 public:
  void walk() { ++rounds_; }

 private:
  int rounds_ = 0;
};
