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
