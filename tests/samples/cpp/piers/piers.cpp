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
Ladder::Ladder() : rungs_(sizes.at("ladder")) {}
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
    if (std::find(listening_.begin(), listening_.end(), one) == listening_.end()) listening_.push_back(one);  // near: lifetime.duplicate-subscription
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

}  // namespace piers
