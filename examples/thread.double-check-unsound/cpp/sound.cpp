// The pointer is atomic: who sees it sees the object behind it.
#include <atomic>
#include <cstdio>
#include <mutex>
#include <thread>
#include <vector>

class SignalMast {
 public:
  static SignalMast* mast() {
    SignalMast* mast = mast_.load();
    if (mast == nullptr) {
      std::lock_guard<std::mutex> hold(making_);
      mast = mast_.load();
      if (mast == nullptr) {
        mast = new SignalMast;
        mast_.store(mast);
      }
    }
    return mast;
  }
  SignalMast(const SignalMast&) = delete;
  int flags() const { return flags_; }

 private:
  SignalMast() = default;
  int flags_ = 3;
  static inline std::atomic<SignalMast*> mast_{nullptr};
  static inline std::mutex making_;
};

int main() {
  std::vector<std::thread> pilots;
  for (int i = 0; i < 4; ++i) pilots.emplace_back([] { std::printf("%d flags\n", SignalMast::mast()->flags()); });
  for (std::thread& pilot : pilots) pilot.join();
}
