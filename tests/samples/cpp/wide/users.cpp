#include "bell.h"
class Cook {
 public:
  explicit Cook() : bell_(Bell::bell()) {}  // finding: coupling.hidden-dependency
  int call() { return bell_.strike(2); }

 private:
  Bell& bell_;
};
class Mate {
 public:
  int watch() { return Bell::bell().strokes(); }
};
class Purser {
 public:
  int noon() {
    auto& bell = Bell::bell();
    return bell.strike(8);
  }
};
static Bell& theBell() { return Bell::bell(); }
class Master {
 public:
  int muster() { return theBell().strike(4); }
};
class Boy {
 public:
  int late() const { return Bell::bell().strokes(); }
};
