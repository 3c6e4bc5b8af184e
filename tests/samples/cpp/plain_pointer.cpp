#include <mutex>
#include <string>

// An early return instead of an if around the creation.
class FlagLocker {  // entity: singleton FlagLocker lazy none
 public:
  static FlagLocker& locker() {
    if (slot_ != nullptr) return *slot_;
    slot_ = new FlagLocker();  // finding: thread.unguarded-creation
    return *slot_;
  }

 private:
  FlagLocker() {}
  FlagLocker(const FlagLocker&);
  static FlagLocker* slot_;
  std::string flags_;
};
FlagLocker* FlagLocker::slot_ = 0;

// The test is not repeated inside the lock.
class Hawser {  // entity: singleton Hawser lazy double-check-unsound
 public:
  static Hawser& hawser() {
    if (slot_ == nullptr) {  // finding: thread.double-check-incomplete
      std::lock_guard<std::mutex> hold(mutex_);
      slot_ = new Hawser;  // finding: init.lazy-needless
    }
    return *slot_;
  }
  Hawser(const Hawser&) = delete;

 private:
  Hawser() = default;
  static Hawser* slot_;
  static std::mutex mutex_;
  int length_ = 0;
};
Hawser* Hawser::slot_ = nullptr;
std::mutex Hawser::mutex_;  // harmless: mutex_
