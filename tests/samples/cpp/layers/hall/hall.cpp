#include "../ledgers/dues.h"

// Near miss: state of its own layer.
class Doorbell {  // entity: singleton Doorbell lazy language
 public:
  static Doorbell& bell() {
    static Doorbell instance;
    return instance;
  }
  Doorbell(const Doorbell&) = delete;
  void ring() { ++rung_; }

 private:
  Doorbell() = default;
  int rung_ = 0;
};

void visitor() {
  Doorbell::bell().ring();
  DuesBook::book().pay(2);  // finding: coupling.layer-breach
}
int visitors() { return FeeBook::book().total(); }  // finding: coupling.hidden-dependency coupling.layer-breach
