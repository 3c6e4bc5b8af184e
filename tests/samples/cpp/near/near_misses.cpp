// Locked at each access, but asked for once.
class Sundial {  // entity: singleton Sundial lazy lock
 public:
  static Sundial& dial() {
    std::lock_guard<std::mutex> hold(mutex_);
    if (!slot_) slot_.reset(new Sundial);  // finding: init.lazy-needless
    return *slot_;
  }
  Sundial(const Sundial&) = delete;
  int hour() const { return hour_; }

 private:
  Sundial() = default;
  static std::unique_ptr<Sundial> slot_;
  static std::mutex mutex_;
  int hour_ = 0;
};
std::unique_ptr<Sundial> Sundial::slot_;
std::mutex Sundial::mutex_;  // harmless: mutex_

// A pool keeps its own children, and takes them out when it likes.
class Barge;
class BargePool {
 public:
  void add(Barge* barge) { barges_.push_back(barge); }
  void make();

 private:
  std::vector<Barge*> barges_;
};
class Barge {
 public:
  explicit Barge(BargePool* pool) { pool->add(this); }
};
void BargePool::make() { barges_.push_back(new Barge(this)); }
