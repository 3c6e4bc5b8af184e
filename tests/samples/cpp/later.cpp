// Each function that is put there is taken out before it is called: nothing is left behind.
#include <functional>
#include <list>
#include <mutex>

class BellLoop {  // entity: singleton BellLoop lazy language
 public:
  static BellLoop& one() {
    static BellLoop loop;
    return loop;
  }
  void later(const std::function<void()>& call) {
    std::lock_guard<std::mutex> held(lock_);
    calls_.push_back(call);
  }
  void turn() {
    std::function<void()> call;
    {
      std::lock_guard<std::mutex> held(lock_);
      if (calls_.empty()) return;
      call = calls_.front();
      calls_.pop_front();
    }
    call();
  }

 private:
  BellLoop() = default;
  BellLoop(const BellLoop&) = delete;
  std::mutex lock_;
  std::list<std::function<void()>> calls_;
};

class BellRope {
 public:
  ~BellRope() { pulls_ = 0; }
  void pull() {
    BellLoop::one().later([this] { ++pulls_; });  // near: lifetime.dangling-subscriber
  }

 private:
  int pulls_ = 0;
};
