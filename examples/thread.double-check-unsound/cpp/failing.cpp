// The test outside of the lock reads a plain pointer while another thread sets it.
#include <cstdio>
#include <mutex>
#include <thread>
#include <vector>

class SignalMast {
 public:
  static SignalMast* mast() {
    if (mast_ == nullptr) {
      std::lock_guard<std::mutex> hold(making_);
      if (mast_ == nullptr) mast_ = new SignalMast;
    }
    return mast_;
  }
  SignalMast(const SignalMast&) = delete;
  int flags() const { return flags_; }

 private:
  SignalMast() = default;
  int flags_ = 3;
  static inline SignalMast* mast_ = nullptr;
  static inline std::mutex making_;
};

int main() {
  std::vector<std::thread> pilots;
  for (int i = 0; i < 4; ++i) pilots.emplace_back([] { std::printf("%d flags\n", SignalMast::mast()->flags()); });
  for (std::thread& pilot : pilots) pilot.join();
}
