// Near misses: a base that is not here may forbid copying, and a library's macro does.
#include "panel.h"

class Beacon : public ForeignPanel {  // entity: singleton Beacon lazy language  // near: single.copyable
 public:
  static Beacon& beacon() {
    static Beacon one;
    return one;
  }
  void light() { ++lit_; }

 private:
  Beacon() = default;
  int lit_ = 0;
};

class Gauge {  // entity: singleton Gauge lazy language  // near: single.copyable
 public:
  static Gauge& gauge() {
    static Gauge one;
    return one;
  }
  void read() { ++read_; }

 private:
  Gauge() = default;
  DISALLOW_COPY_AND_ASSIGN(Gauge);
  int read_ = 0;
};
