// What is put in is taken out again, by whoever put it in or by whoever looks after the list.
#include <list>
#include <vector>

struct Chart {
  int scale = 1;
};
Chart* currentChart = nullptr;  // entity: global-variable currentChart elsewhere none

void draw();

// Saved, set and given back.
void drawInset() {
  Chart inset, *before;
  if (!currentChart) return;
  before = currentChart;
  currentChart = &inset;
  draw();
  currentChart = before;
}

void draw() { currentChart->scale += 1; }

// Left behind.
void drawBadly() {
  Chart inset;
  currentChart = &inset;  // finding: lifetime.local-address-stored
  draw();
}

class Signal;

class Mast {  // entity: singleton Mast lazy language  // finding: single.copyable
 public:
  static Mast& get() {
    static Mast mast;
    return mast;
  }
  void push(Signal* signal) { stack_.push_back(signal); }
  void pop() { stack_.pop_back(); }
  void note(Signal* signal) { noted_.push_back(signal); }
  void keep(Signal* signal) { kept_.push_back(signal); }
  void turn() {
    for (Signal* signal : noted_) use(signal);
    noted_.clear();
    for (Signal* signal : kept_) use(signal);
  }

 private:
  Mast() = default;
  static void use(Signal*) {}
  std::vector<Signal*> stack_;
  std::list<Signal*> noted_;
  std::list<Signal*> kept_;
};

class Signal {
 public:
  Signal() { Mast::get().keep(this); }  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
  void hoist() {
    Mast::get().push(this);
    draw();
    Mast::get().pop();
  }
  void change() { Mast::get().note(this); }
};

// Whoever begins makes the one there is: its base enters it.
template <typename T>
class Entered {
 public:
  Entered() { one_ = static_cast<T*>(this); }  // finding: single.replaceable
  static T* get() { return one_; }

 protected:
  static T* one_;
};

class Plan : public Entered<Plan> {  // entity: singleton Plan elsewhere none  // finding: single.open-constructor single.copyable
 public:
  void add() { ++rows_; }

 private:
  int rows_ = 0;
};
template <>
Plan* Entered<Plan>::one_ = nullptr;

void beginOffice() {
  Plan* plan = new Plan;
  plan->add();
}
void beginYard() {
  Plan* plan = new Plan;
  plan->add();
}

// Looked for, and not found.
struct Berth {
  int number = 0;
  Berth* next = nullptr;
};
Berth* firstBerth = nullptr;  // entity: global-variable firstBerth lazy none

Berth* berth(int number) {
  for (Berth* one = firstBerth; one; one = one->next)
    if (one->number == number) return one;
  return nullptr;
}
void build() {
  if (!firstBerth) firstBerth = new Berth;  // finding: thread.unguarded-creation
  firstBerth->number += 1;
}
