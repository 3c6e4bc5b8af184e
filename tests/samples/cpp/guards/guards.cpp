#include <map>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

namespace guards {

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

// Who calls the one that says of itself that it is for one thread is told; the others hold the lock.
class Lists {  // entity: static-holder Lists eager language
 public:
  static int of(const std::string& ship) {
    std::lock_guard<std::mutex> hold(lock_);
    return ofAlone(ship);
  }
  /// Not thread safe: for the start of the program, and for who holds the lock.
  static int ofAlone(const std::string& ship) {
    if (ship.empty()) return 0;
    return find(ship) + parent(ship);
  }

 private:
  static int find(const std::string& ship) { return ++counts_[ship]; }  // near: thread.mixed-guard
  static int parent(const std::string& ship) { return ofAlone(ship.substr(1)); }
  static std::map<std::string, int> counts_;
  static std::mutex lock_;
};

std::map<std::string, int> Lists::counts_;
std::mutex Lists::lock_;  // harmless: lock_

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

}  // namespace guards
