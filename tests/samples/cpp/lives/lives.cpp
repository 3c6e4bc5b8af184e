#include <algorithm>
#include <functional>
#include <map>
#include <memory>
#include <set>
#include <string>
#include <vector>

namespace lives {

class Keeper {
 public:
  virtual ~Keeper() = default;
  virtual void heard(int signal) = 0;
};

class SignalMast {  // entity: singleton SignalMast lazy language // finding: coupling.wide-reach
 public:
  static SignalMast& mast() {
    static SignalMast instance;
    return instance;
  }
  SignalMast(const SignalMast&) = delete;
  void attach(Keeper* keeper) { keepers_.push_back(keeper); }
  void detach(Keeper* keeper) { keepers_.erase(std::find(keepers_.begin(), keepers_.end(), keeper)); }
  void watch(Keeper* keeper) { watchers_.insert(keeper); }
  void unwatch(Keeper* keeper) { watchers_.erase(keeper); }
  void call(const std::function<void(int)>& heard) { calls_.push_back(heard); }
  void raise(int signal) {
    for (Keeper* keeper : keepers_) keeper->heard(signal);  // finding: lifetime.notify-while-changing
  }
  // Near miss: over a copy.
  void lower(int signal) {
    std::set<Keeper*> now = watchers_;
    for (Keeper* keeper : now) keeper->heard(signal);  // near: lifetime.notify-while-changing
  }

 private:
  SignalMast() = default;
  std::vector<Keeper*> keepers_;
  std::set<Keeper*> watchers_;
  std::vector<std::function<void(int)>> calls_;
};

// Stays listed after its end.
class Lookout : public Keeper {
 public:
  Lookout() { SignalMast::mast().attach(this); }  // finding: lifetime.dangling-subscriber
  Lookout(const Lookout&) = delete;
  void heard(int signal) override { last_ = signal; }

 private:
  int last_ = 0;
};

// So does a function that uses the object.
class Hornist {
 public:
  Hornist() {
    SignalMast::mast().call([this](int signal) { last_ = signal; });  // finding: lifetime.dangling-subscriber
  }
  Hornist(const Hornist&) = delete;

 private:
  int last_ = 0;
};

// Near miss: taken out at its end. It takes itself out while the list is walked, too.
class Bosun : public Keeper {
 public:
  Bosun() { SignalMast::mast().attach(this); }  // near: lifetime.dangling-subscriber
  Bosun(const Bosun&) = delete;
  ~Bosun() override { SignalMast::mast().detach(this); }
  void heard(int signal) override {
    if (signal == 0) SignalMast::mast().detach(this);
  }
};

// Listed by its address, and can be copied.
class Rigger : public Keeper {  // finding: lifetime.copied-subscriber
 public:
  Rigger() { SignalMast::mast().attach(this); }
  ~Rigger() override { SignalMast::mast().detach(this); }
  void heard(int) override { ++heard_; }

 private:
  int heard_ = 0;
};

class Sailmaker : public Keeper {  // finding: lifetime.copied-subscriber
 public:
  Sailmaker() { SignalMast::mast().watch(this); }
  ~Sailmaker() override { SignalMast::mast().unwatch(this); }
  void heard(int) override { ++heard_; }

 private:
  int heard_ = 0;
};

class Cook : public Keeper {
 public:
  Cook() {
    for (int deck = 0; deck < 3; ++deck) SignalMast::mast().attach(this);  // finding: lifetime.duplicate-subscription
  }
  Cook(const Cook&) = delete;
  ~Cook() override { SignalMast::mast().detach(this); }
  void heard(int) override { ++heard_; }

 private:
  int heard_ = 0;
};

class Carpenter : public Keeper {
 public:
  Carpenter() { SignalMast::mast().attach(this); }
  Carpenter(const Carpenter&) = delete;
  ~Carpenter() override { SignalMast::mast().detach(this); }
  void again() {
    SignalMast::mast().detach(this);
    SignalMast::mast().attach(this);
  }
  void heard(int) override { ++heard_; }

 private:
  int heard_ = 0;
};

// Its destructor uses a board that is gone first.
class NoticeBoard {
 public:
  void strike(int number) { struck_ += number; }

 private:
  int struck_ = 0;
};

class Notice {
 public:
  void pin(NoticeBoard* board) { board_ = board; }
  ~Notice() {
    if (board_) board_->strike(1);
  }

 private:
  NoticeBoard* board_ = nullptr;
};

void post() {
  Notice notice;
  NoticeBoard board;
  notice.pin(&board);  // finding: lifetime.subject-first
}

// Near miss: it gives itself to its fairway, which frees it.
class Mark;
class Fairway {
 public:
  void take(Mark* mark) { marks_.emplace_back(mark); }

 private:
  std::vector<std::unique_ptr<Mark>> marks_;
};
class Mark {
 public:
  void lay(Fairway& fairway) { fairway.take(this); }
};
Mark* newMark() { return new Mark; }  // near: lifetime.raw-owner
void layMark(Fairway& fairway) {
  Mark* mark = newMark();
  mark->lay(fairway);
}

// Made for the caller to free, and not freed.
class Buoy {
 public:
  int swing() { return ++swings_; }

 private:
  int swings_ = 0;
};

Buoy* newBuoy() { return new Buoy; }  // finding: lifetime.raw-owner
Buoy* newMarker() {
  Buoy* marker = new Buoy;  // finding: lifetime.raw-owner
  marker->swing();
  return marker;
}
// Near misses: freed, given to an owner.
Buoy* newBeacon() { return new Buoy; }
Buoy* newFloat() { return new Buoy; }

int layBuoys() {
  newBuoy();
  Buoy* marker = newMarker();
  Buoy* beacon = newBeacon();
  std::unique_ptr<Buoy> afloat(newFloat());
  int swings = marker->swing() + beacon->swing() + afloat->swing();
  delete beacon;
  return swings;
}

// Keeps the address of a local.
class Berth {
 public:
  int number = 0;
};
Berth* current = nullptr;  // entity: global-variable current elsewhere none
class Pilotage {  // entity: singleton Pilotage lazy language
 public:
  static Pilotage& pilotage() {
    static Pilotage instance;
    return instance;
  }
  Pilotage(const Pilotage&) = delete;
  void use(Berth* berth) { berth_ = berth; }
  int number() const { return berth_ ? berth_->number : 0; }

 private:
  Pilotage() = default;
  Berth* berth_ = nullptr;
};

void steer() {
  Berth berth;
  Pilotage::pilotage().use(&berth);  // finding: lifetime.local-address-stored
}
// Near miss: who stores it gives back what was there.
void drawAt(Berth* berth) {
  Berth* before = current;
  current = berth;
  current->number += 1;
  current = before;
}
void draw() {
  Berth berth;
  drawAt(&berth);  // near: lifetime.local-address-stored
}
// Near misses: blanked in time; an object that lives on.
void visit() {
  Berth berth;
  current = &berth;
  current->number = 2;
  current = nullptr;
}

// Used after its end.
class TideGauge {  // entity: singleton TideGauge lazy none // finding: single.copyable
 public:
  static TideGauge* gauge() { return gauge_; }  // finding: single.may-return-nothing
  static void open() { gauge_ = new TideGauge; }
  static void close() {
    delete gauge_;
    gauge_ = nullptr;
  }
  int level() { return ++level_; }

 private:
  TideGauge() = default;
  static TideGauge* gauge_;
  int level_ = 0;
};
TideGauge* TideGauge::gauge_ = nullptr;

int evening() {
  TideGauge::open();
  int level = TideGauge::gauge()->level();
  TideGauge::close();
  level += TideGauge::gauge()->level();  // finding: lifetime.used-after-teardown
  return level;
}

}  // namespace lives

// Near miss: a pointer to a file that is not there yet opens none.
class TideFeed {
 public:
  TideFeed() : feed_(nullptr) {}
  TideFeed(const TideFeed&) = delete;
  ~TideFeed() {
    if (feed_) std::fclose(feed_);
  }
  void connect(const char* name) { feed_ = std::fopen(name, "r"); }
  bool open() const { return feed_ != nullptr; }

 private:
  std::FILE* feed_;
};
TideFeed tideFeed;  // entity: shared-instance tideFeed eager language  // near: init.eager-heavy
