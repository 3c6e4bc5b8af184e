#include <algorithm>
#include <cstdlib>
#include <fstream>
#include <functional>
#include <map>
#include <memory>
#include <mutex>
#include <set>
#include <stdexcept>
#include <string>
#include <thread>
#include <vector>

#include "ledgers/fees.h"

namespace piers {

// There is only one, and the class sees to it.
class Anchor {  // near: single.meant-single single.copyable  // entity: singleton Anchor lazy language
 public:
  static Anchor& anchor() {
    static Anchor instance;  // near: thread.unguarded-creation single.second-creation init.eager-heavy
    return instance;         // near: single.may-return-nothing
  }
  Anchor(const Anchor&) = delete;
  Anchor& operator=(const Anchor&) = delete;
  void lower() {
    std::lock_guard<std::mutex> hold(gate_);
    ++chain_;  // near: thread.lost-update thread.unguarded-state thread.mixed-guard
  }

 private:
  Anchor() = default;  // near: single.open-constructor single.subclassable
  std::mutex gate_;
  int chain_ = 0;
};

class Boatswain {
 public:
  explicit Boatswain(Anchor& anchor) : own_(anchor) {}  // near: coupling.hidden-dependency coupling.fixed-collaborator
  void moor() { own_.lower(); }                         // near: coupling.hidden-dependency

 private:
  Anchor& own_;
  std::vector<std::string> notes_;  // near: coupling.fixed-collaborator
};

// Handed out as it is, or not at all: it says so by what it throws.
class Glow {  // entity: singleton Glow lazy language
 public:
  static Glow& glow(bool open) {
    if (!open) throw std::logic_error("closed");
    static Glow instance;
    return instance;  // near: single.may-return-nothing
  }
  Glow(const Glow&) = delete;
  void light() { lit_ = 1; }

 private:
  Glow() = default;
  int lit_ = 0;
};

// Set once; near misses of being replaced.
class Torch {  // entity: singleton Torch lazy none  // finding: single.copyable single.open-constructor
 public:
  static Torch& torch() {
    if (!torch_) torch_ = std::make_unique<Torch>();  // near: single.replaceable  // finding: thread.unguarded-creation
    return *torch_;
  }
  void light() { lit_ = 1; }

 private:
  int lit_ = 0;
  static std::unique_ptr<Torch> torch_;
};
std::unique_ptr<Torch> Torch::torch_;

Flare& flare() {
  static Flare instance;  // near: single.replaceable init.eager-heavy
  return instance;
}

// One slot for a family; near misses: a slot for each, or one class only.
class Raft {  // entity: singleton Raft lazy lock
 public:
  static Raft& raft() {
    std::lock_guard<std::mutex> hold(gate_);
    if (!raft_) raft_ = new Raft();  // finding: init.lazy-needless single.slot-shared-by-subclasses
    return *raft_;
  }
  Raft(const Raft&) = delete;
  virtual ~Raft() = default;
  virtual void sink() { logs_ = 0; }

 protected:
  Raft() = default;  // finding: single.subclassable
  static Raft* raft_;
  static std::mutex gate_;

 private:
  int logs_ = 4;
};
Raft* Raft::raft_ = nullptr;
std::mutex Raft::gate_;  // harmless: gate_

class WideRaft : public Raft {
 public:
  static void open() {
    std::lock_guard<std::mutex> hold(gate_);
    raft_ = new WideRaft();  // finding: single.replaceable coupling.hidden-dependency
  }
};

class Punt {  // entity: singleton Punt lazy language
 public:
  static Punt& punt() {
    static Punt instance;  // near: single.slot-shared-by-subclasses
    return instance;
  }
  Punt(const Punt&) = delete;
  void push() { poles_ = 0; }

 protected:
  Punt() = default;  // finding: single.subclassable

 private:
  int poles_ = 1;
};

class Ferry {  // entity: singleton Ferry lazy language
 public:
  static Ferry& ferry() {
    static Ferry instance;  // near: single.slot-shared-by-subclasses
    return instance;
  }
  Ferry(const Ferry&) = delete;
  void cross() { trips_ = 1; }

 private:
  Ferry() = default;
  int trips_ = 0;
};

// Only the first one's name counts; near misses: it counts each time.
class Plate {
 public:
  static Plate& plate(const std::string& name, int size) {  // finding: init.arguments-ignored
    std::lock_guard<std::mutex> hold(gate_);
    if (plate_ == nullptr) plate_ = std::make_unique<Plate>(name + std::to_string(size));
    return *plate_;
  }
  static Plate& sign(const std::string& name) {  // near: init.arguments-ignored
    std::lock_guard<std::mutex> hold(gate_);
    if (sign_ == nullptr) sign_ = std::make_unique<Plate>(name);
    sign_->rename(name);
    return *sign_;
  }
  static Plate& named(const std::string& name) {  // near: init.arguments-ignored
    std::lock_guard<std::mutex> hold(gate_);
    return plates_.try_emplace(name, name).first->second;
  }
  explicit Plate(const std::string& name) : name_(name) {}
  void rename(const std::string& name) { name_ = name; }

 private:
  std::string name_;
  static std::unique_ptr<Plate> plate_, sign_;
  static std::map<std::string, Plate> plates_;
  static std::mutex gate_;
};
std::unique_ptr<Plate> Plate::plate_, Plate::sign_;  // entity: shared-instance plate_ lazy lock  // entity: shared-instance sign_ lazy lock
std::map<std::string, Plate> Plate::plates_;  // entity: registry plates_ eager language
std::mutex Plate::gate_;  // harmless: gate_

// Others run while it is made; near miss: nothing runs in between.
template <typename T>
struct task;
task<int> askForChannel();

class Radio {
 public:
  static task<Radio*> radio() {
    if (radio_ == nullptr) {
      int channel = co_await askForChannel();  // finding: thread.await-gap
      radio_ = new Radio(channel);  // finding: thread.unguarded-creation
    }
    co_return radio_;
  }
  static task<Radio*> sonar() {
    int channel = co_await askForChannel();  // near: thread.await-gap
    if (sonar_ == nullptr) sonar_ = new Radio(channel);  // finding: thread.unguarded-creation
    co_return sonar_;
  }
  explicit Radio(int channel) : channel_(channel) {}
  void tune(int channel) { channel_ = channel; }

 private:
  int channel_;
  static Radio* radio_;
  static Radio* sonar_;
};
Radio* Radio::radio_ = nullptr;  // entity: static-field radio_ lazy none
Radio* Radio::sonar_ = nullptr;  // entity: static-field sonar_ lazy none

// Works only after it was set up; near misses: it sees to it itself.
class Gauge {
 public:
  int read() const { return 3; }
};

class Locks {  // entity: singleton Locks lazy language
 public:
  static Locks& locks() {
    static Locks instance;
    return instance;
  }
  Locks(const Locks&) = delete;
  void setUp(Gauge* gauge) { gauge_ = gauge; }
  void fill() { level_ = gauge_->read(); }

 private:
  Locks() = default;
  Gauge* gauge_ = nullptr;
  int level_ = 0;
};

class Basin {  // entity: singleton Basin lazy language
 public:
  static Basin& basin() {
    static Basin instance;
    return instance;
  }
  Basin(const Basin&) = delete;
  void setUp(Gauge* gauge) { gauge_ = gauge; }
  void fill() {  // near: init.needs-setup
    if (!gauge_) throw std::logic_error("no gauge");
    level_ = gauge_->read();
  }
  void empty() {  // near: init.needs-setup
    level_ = gauge_ ? gauge_->read() : 0;
  }

 private:
  Basin() = default;
  Gauge* gauge_ = nullptr;
  int level_ = 0;
};

void flood(Gauge& gauge, bool deep) {
  Locks::locks().fill();  // finding: init.needs-setup
  if (deep) Locks::locks().setUp(&gauge);
  Basin::basin().setUp(&gauge);
  Basin::basin().fill();
  Basin::basin().empty();
}

// The failure is told, or handed on.
class Barometer {  // entity: singleton Barometer lazy language
 public:
  static Barometer& barometer() {
    static Barometer instance;  // finding: init.may-throw
    return instance;
  }
  Barometer(const Barometer&) = delete;
  void fall() { pressure_ = 1; }

 private:
  Barometer() {
    try {
      std::ifstream in("barometer");
      in.exceptions(std::ios::failbit);
      in >> pressure_;
    } catch (const std::ios_base::failure& error) {
      throw std::runtime_error("no barometer");  // near: init.failure-swallowed
    }
  }
  int pressure_ = 0;
};

class Hygrometer {  // entity: singleton Hygrometer lazy language
 public:
  static Hygrometer& hygrometer() {
    static Hygrometer instance;  // finding: init.may-throw
    return instance;
  }
  Hygrometer(const Hygrometer&) = delete;
  void rise() { damp_ = 1; }

 private:
  Hygrometer() {
    try {
      std::ifstream in("hygrometer");
      in >> damp_;
    } catch (...) {
      throw;  // near: init.failure-swallowed
    }
  }
  int damp_ = 0;
};

// What is called later is no part of the making.
class Tackle {  // entity: singleton Tackle lazy language
 public:
  static Tackle& tackle() {
    static Tackle instance;  // near: init.cycle init.reentrant init.may-throw
    return instance;
  }
  Tackle(const Tackle&) = delete;
  void pull() { blocks_ = 3; }  // near: coupling.cycle
  void strain(int tons) {
    if (tons < 0) throw std::out_of_range("tons");
    blocks_ = tons;
  }

 private:
  Tackle() = default;
  int blocks_ = 2;
};

class Pennants {  // entity: singleton Pennants lazy language
 public:
  static Pennants& pennants() {
    static Pennants instance("pier");
    return instance;
  }
  Pennants(const Pennants&) = delete;
  void reload() {
    const char* home = std::getenv("HARBOUR");  // near: init.reads-environment
    home_ = home ? home : "";
    Tackle::tackle().pull();  // finding: coupling.hidden-dependency
  }

 private:
  explicit Pennants(std::string home) : home_(std::move(home)) {}
  std::string home_;
};

// Sound with threads, each in its own way.
class Windows {  // entity: singleton Windows lazy once
 public:
  static Windows& windows() {
    std::call_once(once_, [] { windows_ = new Windows(); });  // near: thread.unguarded-creation init.lazy-needless
    return *windows_;                                         // near: thread.double-check-incomplete thread.double-check-unsound
  }
  Windows(const Windows&) = delete;
  std::string take() {
    std::lock_guard<std::mutex> hold(gate_);
    std::string pane = panes_.back();
    panes_.pop_back();  // near: thread.check-then-act
    return pane;
  }
  std::vector<std::string> copied() {
    std::lock_guard<std::mutex> hold(gate_);
    return panes_;  // near: thread.leaks-internals
  }
  const std::vector<std::string>& all() {
    std::lock_guard<std::mutex> hold(gate_);
    return panes_;  // finding: thread.leaks-internals
  }

 private:
  Windows() {
    for (int i = 0; i < 9; ++i) panes_.push_back("pane");
  }
  static std::once_flag once_;
  static Windows* windows_;
  std::mutex gate_;
  std::vector<std::string> panes_;
};
std::once_flag Windows::once_;  // harmless: once_
Windows* Windows::windows_ = nullptr;

class Doors {  // entity: singleton Doors lazy lock  // finding: single.copyable
 public:
  static Doors& doors() {
    std::lock_guard<std::mutex> hold(gate_);  // near: thread.wrong-lock thread.lock-every-access
    if (!doors_) doors_ = std::make_unique<Doors>();  // near: init.lazy-needless
    return *doors_;
  }
  Doors() {  // finding: single.open-constructor
    for (int i = 0; i < 9; ++i) hinges_.insert(i);
  }
  void oil() {
    std::lock_guard<std::mutex> hold(gate_);
    hinges_.erase(hinges_.begin());
  }

 private:
  static std::mutex gate_;
  static std::unique_ptr<Doors> doors_;
  std::set<int> hinges_;
};
std::mutex Doors::gate_;  // harmless: gate_
std::unique_ptr<Doors> Doors::doors_;

// Used after its end; near misses: one that has none, opened again, or used before.
class Cistern {  // entity: singleton Cistern lazy none  // finding: single.copyable single.open-constructor
 public:
  static Cistern* cistern() { return cistern_.get(); }
  static void begin() { cistern_ = std::make_unique<Cistern>(); }
  static void end() { cistern_.reset(); }
  int measure() { return ++level_; }

 private:
  int level_ = 0;
  static std::unique_ptr<Cistern> cistern_;
};
std::unique_ptr<Cistern> Cistern::cistern_;

// Nothing to hand in; near misses: no state, or one caller.
class Tickets {  // finding: coupling.static-only-api  // entity: static-holder Tickets eager language
 public:
  static void sell() { sold_ = 1; }
  static int sold() { return sold_; }

 private:
  static int sold_;
};
int Tickets::sold_ = 0;

class Knots {  // near: coupling.static-only-api
 public:
  static int bowline(int turns) { return turns + 1; }
  static int hitch(int turns) { return turns + 2; }
};

class Bollards {  // near: coupling.static-only-api  // entity: static-holder Bollards eager language
 public:
  static void use() { used_ = 1; }

 private:
  static int used_;
};
int Bollards::used_ = 0;

class Sailor {
 public:
  int tie() {
    Tickets::sell();  // finding: coupling.hidden-dependency
    Bollards::use();  // finding: coupling.hidden-dependency
    return Knots::bowline(2);
  }
};

class Rower {
 public:
  int tie() { return Knots::hitch(Tickets::sold()); }
};

// Reached from two places; handed in for the day; the other asked directly.
class Whistle {  // near: coupling.wide-reach  // entity: singleton Whistle lazy language
 public:
  static Whistle& whistle() {
    static Whistle instance;
    return instance;
  }
  Whistle(const Whistle&) = delete;
  void blow() { blown_ = 1; }

 private:
  Whistle() = default;
  int blown_ = 0;
};

class Pier1 {
 public:
  void fog() { Whistle::whistle().blow(); }  // near: coupling.chained-access  // finding: coupling.hidden-dependency
};

class Pier2 {
 public:
  void fog() { Whistle::whistle().blow(); }
};

class Papers {
 public:
  bool inOrder() const { return true; }
};
bool stamp(const Papers& papers) { return papers.inOrder(); }
bool clerk(const Papers& papers) { return stamp(papers); }
bool counter(const Papers& papers) { return clerk(papers); }
bool window() { return counter(Papers()); }  // near: coupling.long-handoff

// In the right order, and asked for when it is there.
static const int heights[] = {1, 2, 3};  // harmless: heights
class Stairs {
 public:
  Stairs() : climbed_(heights[0]) {}
  Stairs(const Stairs&) = delete;
  void climb() { climbed_ = ends.at("stairs"); }  // near: init.order-within-class

 private:
  int climbed_;
  friend void raiseStairs(int by);
  static std::map<std::string, int> ends;
};
Stairs stairs;  // near: init.order-within-class init.order-across-files init.eager-unused  // entity: shared-instance stairs eager language
std::map<std::string, int> Stairs::ends;  // entity: static-field ends eager language
void raiseStairs(int by) { Stairs::ends["stairs"] = by; }

class Ladder {
 public:
  Ladder();
  Ladder(const Ladder&) = delete;
  int rungs() const { return rungs_; }
  void climb() { rungs_ = 0; }

 private:
  int rungs_;
};
extern std::map<std::string, int> sizes;
Ladder ladder;  // finding: init.order-within-class  // entity: shared-instance ladder eager language
std::map<std::string, int> sizes = {{"ladder", 4}};  // entity: global-variable sizes eager language
Ladder::Ladder() : rungs_(sizes.at("ladder")) {}  // finding: coupling.hidden-dependency
void resize(int by) { sizes["ladder"] = by; }

// Lists: a look first, a copy walked over, taken out at the end, the subject first.
class Listening {
 public:
  virtual ~Listening() = default;
  virtual void heard(int what) = 0;
};

class Crier {  // entity: singleton Crier lazy language
 public:
  static Crier& crier() {
    static Crier instance;
    return instance;
  }
  Crier(const Crier&) = delete;
  void attach(Listening* one) {
    if (std::find(listening_.begin(), listening_.end(), one) == listening_.end()) listening_.push_back(one);  // near: lifetime.duplicate-subscription  // finding: thread.check-then-act
  }
  void detach(Listening* one) { listening_.erase(std::find(listening_.begin(), listening_.end(), one)); }
  void cry(int what) {
    std::vector<Listening*> now(listening_);
    for (Listening* one : now) one->heard(what);  // near: lifetime.notify-while-changing
  }

 private:
  Crier() = default;
  std::vector<Listening*> listening_;
};

class Harper : public Listening {  // near: lifetime.copied-subscriber
 public:
  Harper() { Crier::crier().attach(this); }  // finding: coupling.hidden-dependency
  Harper(const Harper&) = delete;
  Harper& operator=(const Harper&) = delete;
  ~Harper() override { Crier::crier().detach(this); }
  void again() { Crier::crier().attach(this); }  // near: lifetime.duplicate-subscription
  void heard(int what) override { last_ = what; }

 private:
  int last_ = 0;
};

void play() {
  Crier& crier = Crier::crier();  // near: lifetime.subject-first
  Harper harper;
  crier.cry(1);
}

// Freed by whoever asked; a resource with an owner; no address kept.
int dig() {
  Gauge* gauge = new Gauge();  // near: lifetime.raw-owner
  int depth = gauge->read();
  delete gauge;
  return depth;
}

class Soundings {  // entity: singleton Soundings lazy language
 public:
  static Soundings& soundings() {
    static Soundings instance;
    return instance;
  }
  Soundings(const Soundings&) = delete;
  void open(const char* name) { file_.reset(std::fopen(name, "r")); }  // near: lifetime.never-released
  void use(const Gauge* gauge) { level_ = gauge->read(); }
  ~Soundings() { level_ = 0; }  // near: lifetime.exit-order

 private:
  struct Close {
    void operator()(std::FILE* file) const { std::fclose(file); }
  };
  Soundings() = default;
  std::unique_ptr<std::FILE, Close> file_;
  int level_ = 0;
};

void measure() {
  Gauge gauge;
  Soundings::soundings().use(&gauge);  // near: lifetime.local-address-stored
}

// Near miss: what it held before is given back.
const Gauge* shown = nullptr;  // entity: shared-instance shown elsewhere none

int show() {
  Gauge gauge;
  const Gauge* before = shown;
  shown = &gauge;  // near: lifetime.local-address-stored
  int depth = shown->read();
  shown = before;
  return depth;
}

void open(Gauge& gauge) {  // finding: coupling.crowded-startup
  std::thread([] { Anchor::anchor().lower(); }).detach();
  std::thread([] { Windows::windows().take(); }).detach();
  std::thread([] { Doors::doors().oil(); }).detach();
  Boatswain(Anchor::anchor()).moor();
  Plate::plate("a", 1).rename("b");
  Plate::plate("c", 2);
  Plate::sign("a");
  Plate::named("b").rename("c");
  Raft::raft().sink();
  WideRaft::open();
  Punt::punt().push();
  Ferry::ferry().cross();
  Torch::torch().light();
  Glow::glow(true).light();
  flare().light();
  stairs.climb();
  ladder.climb();
  Pennants::pennants().reload();
  Barometer::barometer().fall();
  Hygrometer::hygrometer().rise();
  Windows::windows().all();
  Windows::windows().copied();
  PilotFees::fees().enter(2);
  flood(gauge, true);
}

}  // namespace piers
