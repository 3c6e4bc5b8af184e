namespace ties {

class Berther;

// Knows who uses it.
class HarbourPlan {  // entity: singleton HarbourPlan lazy language
 public:
  static HarbourPlan& plan() {
    static HarbourPlan instance;
    return instance;
  }
  HarbourPlan(const HarbourPlan&) = delete;
  void change(Berther& berther);
  int berths() const { return berths_; }

 private:
  HarbourPlan() = default;
  int berths_ = 0;
};

class Berther {
 public:
  void arrive() { free_ = HarbourPlan::plan().berths(); }  // finding: coupling.hidden-dependency
  void stop() { free_ = 0; }

 private:
  int free_ = 0;
};
void HarbourPlan::change(Berther& berther) {
  ++berths_;
  berther.stop();  // finding: coupling.cycle
}

// Near miss: knows only an interface.
class Listener {
 public:
  virtual ~Listener() = default;
  virtual void changed() = 0;
};
class LockPlan {  // entity: singleton LockPlan lazy language
 public:
  static LockPlan& plan() {
    static LockPlan instance;
    return instance;
  }
  LockPlan(const LockPlan&) = delete;
  void change(Listener& listener) {
    ++gates_;
    listener.changed();
  }
  int gates() const { return gates_; }

 private:
  LockPlan() = default;
  int gates_ = 0;
};
class Lockman : public Listener {
 public:
  void changed() override { gates_ = LockPlan::plan().gates(); }  // finding: coupling.hidden-dependency

 private:
  int gates_ = 0;
};

class Ruler {
 public:
  int length() const { return 30; }
};
class Draughtsman {
 public:
  int length() const { return ruler_.length(); }

 private:
  Ruler ruler_;
};

// Nothing to hand in.
class Dues {  // entity: static-holder Dues eager language // finding: coupling.static-only-api
 public:
  static void add(int coins) { total_ += coins; }
  static int total() { return total_; }

 private:
  static int total_;
};
int Dues::total_ = 0;
class Tollhouse {
 public:
  void pay() { Dues::add(3); }  // finding: coupling.hidden-dependency
};
class Treasurer {
 public:
  int count() { return Dues::total(); }
};

// Passed through three functions that do nothing with it.
class Permit {
 public:
  bool valid() const { return true; }
};
class Gatehouse {
 public:
  bool check(const Permit& permit) { return permit.valid(); }
};
Gatehouse gatehouse;  // harmless: gatehouse
bool gate(const Permit& permit) { return gatehouse.check(permit); }
bool quay(const Permit& permit) { return gate(permit); }
bool pier(const Permit& permit) { return quay(permit); }  // finding: coupling.long-handoff
// Near miss: each looks at it.
bool yard(const Permit& permit) { return permit.valid() && gatehouse.check(permit); }
bool dock(const Permit& permit) { return permit.valid() && yard(permit); }

}  // namespace ties
