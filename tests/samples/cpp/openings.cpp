#include <mutex>
#include <string>

// Refuses a second one at run time: as good as a closed constructor.
class Belfry {  // entity: singleton Belfry elsewhere none
 public:
  Belfry() {
    if (slot_ != nullptr) throw "one belfry only";
    slot_ = this;
  }
  Belfry(const Belfry&) = delete;
  static Belfry* belfry() { return slot_; }
  void ring() { ++strokes_; }

 private:
  static Belfry* slot_;
  int strokes_ = 0;
};
Belfry* Belfry::slot_ = nullptr;
