#include <memory>
#include <mutex>
#include <optional>
#include <string>

// lock() and unlock() by hand.
class Capstan {  // entity: singleton Capstan lazy lock
 public:
  static Capstan* capstan() {
    mutex_.lock();
    if (!slot_) slot_ = new Capstan;  // finding: init.lazy-needless
    mutex_.unlock();
    return slot_;
  }
  Capstan(const Capstan&) = delete;

 private:
  Capstan() = default;
  static Capstan* slot_;
  static std::mutex mutex_;
  int turns_ = 0;
};
Capstan* Capstan::slot_ = nullptr;
std::mutex Capstan::mutex_;  // harmless: mutex_
