// Shared ownership, handed out by value.
class Wharf {  // entity: singleton Wharf lazy lock
 public:
  static std::shared_ptr<Wharf> wharf() {
    std::scoped_lock hold(mutex_);
    if (slot_ == nullptr) slot_ = std::shared_ptr<Wharf>(new Wharf());  // finding: init.lazy-needless
    return slot_;
  }
  Wharf(const Wharf&) = delete;

 private:
  Wharf() {}
  static inline std::shared_ptr<Wharf> slot_;
  static inline std::mutex mutex_;  // harmless: mutex_
  int piles_ = 0;
};

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
