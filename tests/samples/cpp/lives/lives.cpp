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
  Lookout() { SignalMast::mast().attach(this); }  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
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

// Registered by its constructor and again by a method.
class Steward : public Keeper {
 public:
  Steward() { SignalMast::mast().attach(this); }
  Steward(const Steward&) = delete;
  ~Steward() override { SignalMast::mast().detach(this); }
  void wake() { SignalMast::mast().attach(this); }  // finding: lifetime.duplicate-subscription
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

// Near misses: a set holds each once; taken out first.
class Purser : public Keeper {
 public:
  Purser() { SignalMast::mast().watch(this); }
  Purser(const Purser&) = delete;
  ~Purser() override { SignalMast::mast().unwatch(this); }
  void wake() { SignalMast::mast().watch(this); }
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

class Hall {
 public:
  Hall() { notice_.pin(&board_); }  // finding: lifetime.subject-first

 private:
  Notice notice_;
  NoticeBoard board_;
};

void post() {
  Notice notice;
  NoticeBoard board;
  notice.pin(&board);  // finding: lifetime.subject-first
}

// Near misses: the board stands first.
class Lobby {
 public:
  Lobby() { notice_.pin(&board_); }

 private:
  NoticeBoard board_;
  Notice notice_;
};

void repost() {
  NoticeBoard board;
  Notice notice;
  notice.pin(&board);
}

// A destructor at exit uses another shared object.
class Ledger {  // entity: singleton Ledger lazy language // finding: single.copyable
 public:
  static Ledger& ledger() {
    static Ledger instance;
    return instance;
  }
  void close(int page) { closed_ += page; }

 private:
  Ledger() = default;
  int closed_ = 0;
};

class Cashier {  // entity: singleton Cashier lazy language // finding: single.copyable
 public:
  static Cashier& cashier() {
    static Cashier instance;
    return instance;
  }
  ~Cashier() { Ledger::ledger().close(taken_); }  // finding: lifetime.exit-order
  void take(int coins) { taken_ += coins; }

 private:
  Cashier() = default;
  int taken_ = 0;
};

class Clerk {  // entity: singleton Clerk lazy language // finding: single.copyable
 public:
  static Clerk& clerk() {
    static Clerk instance;
    return instance;
  }
  ~Clerk() { finish(); }
  void write() { ++written_; }

 private:
  Clerk() = default;
  void finish() { Ledger::ledger().close(written_); }  // finding: lifetime.exit-order
  int written_ = 0;
};

// Near misses: it asked for it when it was made; it uses nothing.
class Auditor {  // entity: singleton Auditor lazy language // finding: single.copyable
 public:
  static Auditor& auditor() {
    static Auditor instance;
    return instance;
  }
  ~Auditor() { Ledger::ledger().close(seen_); }
  void look() { ++seen_; }

 private:
  Auditor() { Ledger::ledger(); }
  int seen_ = 0;
};

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

void moor() {
  Berth berth;
  current = &berth;  // finding: lifetime.local-address-stored
}
void steer() {
  Berth berth;
  Pilotage::pilotage().use(&berth);  // finding: lifetime.local-address-stored
}
// Near misses: blanked in time; an object that lives on.
void visit() {
  Berth berth;
  current = &berth;
  current->number = 2;
  current = nullptr;
}
void stay() {
  static Berth berth;  // entity: function-static berth lazy language
  Pilotage::pilotage().use(&berth);
}

// Only ever added to.
class Logbook {  // entity: singleton Logbook lazy language
 public:
  static Logbook& log() {
    static Logbook instance;
    return instance;
  }
  Logbook(const Logbook&) = delete;
  void write(const std::string& line) { lines_.push_back(line); }  // finding: lifetime.grows-forever
  void arrive(const std::string& ship) { arrivals_[ship] += 1; }  // finding: lifetime.grows-forever
  // Near misses: emptied; given a limit.
  void note(const std::string& line) { notes_.push_back(line); }  // near: lifetime.grows-forever
  void tidy() { notes_.clear(); }
  void keep(const std::string& line) {
    recent_.push_back(line);
    if (recent_.size() > 20) recent_.erase(recent_.begin());
  }

 private:
  Logbook() = default;
  std::vector<std::string> lines_;
  std::map<std::string, int> arrivals_;
  std::vector<std::string> notes_;
  std::vector<std::string> recent_;
};
std::vector<int> draughts;  // entity: global-variable draughts eager language
void measure(int draught) { draughts.push_back(draught); }  // finding: lifetime.grows-forever

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
// Near misses: before its end; opened again.
int morning() {
  TideGauge::open();
  int level = TideGauge::gauge()->level();
  TideGauge::close();
  return level;
}

}  // namespace lives
