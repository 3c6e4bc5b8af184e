// Six classes, and whoever changes the plan must look into all of them.
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

class Pilot {
 public:
  int one() const { return HarbourPlan::plan().berths(); }
};
class Crane {
 public:
  int two() const { return HarbourPlan::plan().berths(); }
};
class Customs {
 public:
  int three() const { return HarbourPlan::plan().berths(); }
};
class Dredger {
 public:
  void four() { HarbourPlan::plan().dig(1); }
};
class Ferry {
 public:
  int five() const { return HarbourPlan::plan().berths(); }
};
class Office {
 public:
  int six() const { return HarbourPlan::plan().berths(); }
};
class Chandler {
 public:
  int seven() const { return HarbourPlan::plan().berths(); }
};
class Tug {
 public:
  int eight() const { return HarbourPlan::plan().berths(); }
};
