// One class knows the plan, and tells the others what they need.
class HarbourPlan {
 public:
  static HarbourPlan& plan() {
    static HarbourPlan instance;
    return instance;
  }
  HarbourPlan(const HarbourPlan&) = delete;
  int berths() const { return berths_; }
  void dig(int berths) { berths_ += berths; }

 private:
  HarbourPlan() = default;
  int berths_ = 0;
};

class Office {
 public:
  int berths() const { return HarbourPlan::plan().berths(); }
};
class Pilot {
 public:
  explicit Pilot(int berths) : berths_(berths) {}

 private:
  int berths_;
};
