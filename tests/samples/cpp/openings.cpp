class Chartroom {  // entity: singleton Chartroom lazy language // finding: single.copyable
 public:
  Chartroom() {}  // finding: single.open-constructor
  static Chartroom& room() {
    static Chartroom instance;
    return instance;
  }
  void unroll(const std::string& chart) { open_ = chart; }

 private:
  std::string open_;
};

void study() {
  Chartroom own;  // finding: single.second-creation
  own.unroll("approaches");
  auto copy = Chartroom::room();
  copy.unroll("roads");
}

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
