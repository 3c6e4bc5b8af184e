namespace guards {

// Guarded when it is written, not when it is read.
class TideBoard {  // entity: singleton TideBoard lazy language
 public:
  static TideBoard& board() {
    static TideBoard instance;
    return instance;
  }
  TideBoard(const TideBoard&) = delete;
  void set(int level) {
    std::lock_guard<std::mutex> hold(mutex_);
    level_ = level;
  }
  int level() const { return level_; }  // finding: thread.mixed-guard
  // Near miss: a helper that is only called under the lock.
  void raise(int by) {
    std::lock_guard<std::mutex> hold(mutex_);
    move(by);  // near: thread.mixed-guard
  }

 private:
  TideBoard() = default;
  void move(int by) { offset_ += by; }
  mutable std::mutex mutex_;
  int level_ = 0;
  int offset_ = 0;
};

// Two locks for one list.
class BerthList {  // entity: singleton BerthList lazy language
 public:
  static BerthList& list() {
    static BerthList instance;
    return instance;
  }
  BerthList(const BerthList&) = delete;
  void add(const std::string& ship) {
    std::lock_guard<std::mutex> hold(adding_);
    ships_.push_back(ship);
  }
  void drop() {
    std::lock_guard<std::mutex> hold(dropping_);
    ships_.pop_back();  // finding: thread.mixed-guard
  }

 private:
  BerthList() = default;
  std::mutex adding_, dropping_;
  std::vector<std::string> ships_;
};

// Near misses: one lock throughout; a field that never changes.
class PilotList {  // entity: singleton PilotList lazy language
 public:
  static PilotList& list() {
    static PilotList instance;
    return instance;
  }
  PilotList(const PilotList&) = delete;
  void add(const std::string& pilot) {
    std::lock_guard<std::mutex> hold(mutex_);
    pilots_.push_back(pilot);
  }
  void drop() {
    std::lock_guard<std::mutex> hold(mutex_);
    pilots_.pop_back();
  }
  int office() const { return office_; }

 private:
  PilotList() = default;
  std::mutex mutex_;
  std::vector<std::string> pilots_;
  int office_ = 3;
};

// A look and a change, in two steps.
class Moorings {  // entity: singleton Moorings lazy language
 public:
  static Moorings& moorings() {
    static Moorings instance;
    return instance;
  }
  Moorings(const Moorings&) = delete;
  bool take(const std::string& berth, const std::string& ship) {
    if (taken_.count(berth) != 0) return false;  // finding: thread.check-then-act
    taken_[berth] = ship;  // finding: thread.unguarded-state
    return true;
  }
  void leave(const std::string& berth) {
    if (taken_.count(berth) != 0) {  // finding: thread.check-then-act
      taken_.erase(berth);
    }
  }

 private:
  Moorings() = default;
  std::map<std::string, std::string> taken_;
};

// Near misses: both under one lock; one call that does both.
class Anchorages {  // entity: singleton Anchorages lazy language
 public:
  static Anchorages& all() {
    static Anchorages instance;
    return instance;
  }
  Anchorages(const Anchorages&) = delete;
  bool take(const std::string& place, const std::string& ship) {
    std::lock_guard<std::mutex> hold(mutex_);
    if (taken_.count(place) != 0) return false;  // near: thread.check-then-act
    taken_[place] = ship;
    return true;
  }
  bool offer(const std::string& place, const std::string& ship) {
    std::lock_guard<std::mutex> hold(mutex_);
    return taken_.emplace(place, ship).second;
  }
  void leave(const std::string& place) {
    std::lock_guard<std::mutex> hold(mutex_);
    taken_.erase(place);
  }

 private:
  Anchorages() = default;
  std::mutex mutex_;
  std::map<std::string, std::string> taken_;
};

// The list itself is handed out from under its lock.
class WatchRoster {  // entity: singleton WatchRoster lazy language
 public:
  static WatchRoster& roster() {
    static WatchRoster instance;
    return instance;
  }
  WatchRoster(const WatchRoster&) = delete;
  void add(const std::string& name) {
    std::lock_guard<std::mutex> hold(mutex_);
    names_.push_back(name);
  }
  void clear() {
    std::lock_guard<std::mutex> hold(mutex_);
    names_.clear();
  }
  const std::vector<std::string>& names() {
    std::lock_guard<std::mutex> hold(mutex_);
    return names_;  // finding: thread.leaks-internals
  }
  std::vector<std::string>* open() {
    std::lock_guard<std::mutex> hold(mutex_);
    return &names_;
  }
  // Near miss: a copy, made under the lock.
  std::vector<std::string> copy() {
    std::lock_guard<std::mutex> hold(mutex_);
    return names_;  // near: thread.leaks-internals
  }

 private:
  WatchRoster() = default;
  std::mutex mutex_;
  std::vector<std::string> names_;
};

// A thread is started on an object that is not complete.
class EchoSounder {
 public:
  EchoSounder() {
    worker_ = std::thread([this] { depth_ = step_; });  // finding: thread.escaping-this
    step_ = 2;
  }
  ~EchoSounder() { worker_.join(); }

 private:
  std::thread worker_;
  int step_ = 1;
  int depth_ = 0;
};

class RadarSweep {
 public:
  RadarSweep() {
    std::thread(&RadarSweep::turn, this).detach();  // finding: thread.escaping-this
    angle_ = 90;
  }
  void turn() { angle_ += 1; }

 private:
  int angle_ = 0;
};

class TideMill {
 public:
  TideMill() {
    worker_ = std::thread([] {});
    wheels_ = 2;
  }
  ~TideMill() { worker_.join(); }

 private:
  std::thread worker_;
  int wheels_ = 0;
};

void work() {  // finding: coupling.crowded-startup
  TideBoard::board().set(3);
  TideBoard::board().raise(1);
  BerthList::list().add("Albatross");
  BerthList::list().drop();
  PilotList::list().add("Ines");
  PilotList::list().drop();
  Moorings::moorings().take("north", "Albatross");
  Moorings::moorings().leave("north");
  Anchorages::all().take("roads", "Heron");
  Anchorages::all().offer("roads", "Heron");
  Anchorages::all().leave("roads");
  WatchRoster::roster().add("Ines");
}

}  // namespace guards

int main() {
  std::thread other(guards::work);
  guards::work();
  other.join();
  return guards::TideBoard::board().level() + guards::PilotList::list().office();
}
