#include <boost/thread/tss.hpp>
#include <functional>
#include <list>
#include <mutex>
#include <string>
#include <thread>

// What runs before the class's own thread is started, or after its end was waited for, meets nothing.
namespace harbour {

class Lookout {
 public:
  void start() {
    seen_.push_back("dawn");  // near: thread.mixed-guard
    watch_ = std::thread(std::bind(&Lookout::run, this));
  }
  void stop() {
    gone_.clear();  // finding: thread.mixed-guard
    watch_.join();
  }
  void hail(const std::string& ship) {
    std::lock_guard<std::mutex> lock(mutex_);
    seen_.push_back(ship);
    gone_.push_back(ship);
  }

 private:
  void run() {
    std::lock_guard<std::mutex> lock(mutex_);
    seen_.pop_front();
    gone_.pop_front();
  }

  std::mutex mutex_;
  std::list<std::string> seen_, gone_;
  std::thread watch_;
};

Lookout lookout;  // entity: shared-instance lookout eager language

// Each thread has its own.
boost::thread_specific_ptr<std::string> signalName;  // entity: thread-local signalName elsewhere none

// Looks into the ledger and changes it in two places: one finding.
class Ledger {  // entity: singleton Ledger lazy language  // finding: single.open-constructor
 public:
  static Ledger& instance() {
    static Ledger ledger;
    return ledger;
  }
  void enter(const std::string& ship) {
    if (ships_.empty()) {  // finding: thread.check-then-act thread.mixed-guard
      std::lock_guard<std::mutex> lock(mutex_);
      ships_.push_back(ship);
    }
  }
  void leave() {
    if (!ships_.empty()) {  // near: thread.check-then-act
      std::lock_guard<std::mutex> lock(mutex_);
      ships_.pop_back();
    }
  }

 private:
  std::mutex mutex_;
  std::list<std::string> ships_;
};

// A macro that stands for the accessor, by name and as a call.
#define ledgerOfAll (harbour::Ledger::instance())
#define LEDGER() harbour::Ledger::instance()

void moor(const std::string& ship) {
  signalName.reset(new std::string(ship));
  lookout.hail(ship);
  ledgerOfAll.enter(ship);
}

void sail() { LEDGER().leave(); }

}  // namespace harbour

void keepHouse() {
  harbour::lookout.start();
  std::thread other([] { harbour::moor("heron"); });
  harbour::sail();
  harbour::lookout.stop();
  other.join();
}

// A lock in a record guards the record.
struct Tower {
  std::mutex lock;
  int flags = 0;
};
static Tower tower;  // entity: global-variable tower eager language

void hoist() {
  std::lock_guard<std::mutex> guard(tower.lock);
  tower.flags++;
}

void strike() { tower.flags--; }  // finding: thread.mixed-guard

void flagDay() {
  std::thread([] { hoist(); }).detach();
  std::thread([] { strike(); }).detach();
}
