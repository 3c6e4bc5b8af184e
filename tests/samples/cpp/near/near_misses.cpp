// Everything here looks a little like a fault, and is none.
#include <cstdio>
#include <memory>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

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

int main() { return Sundial::dial().hour(); }  // main puts the program together: no hidden dependency

// Changes, but under a lock at every access, in a private helper too.
class Manifest {  // entity: singleton Manifest lazy language
 public:
  static Manifest& manifest() {
    static Manifest instance;
    return instance;
  }
  Manifest(const Manifest&) = delete;
  void load(const std::string& crate) {
    std::lock_guard<std::mutex> hold(mutex_);
    store(crate);
  }
  size_t size() {
    std::lock_guard<std::mutex> hold(mutex_);
    return crates_.size();
  }

 private:
  Manifest() = default;
  void store(const std::string& crate) { crates_.push_back(crate); }  // finding: lifetime.grows-forever
  std::mutex mutex_;
  std::vector<std::string> crates_;
};

void stow() { Manifest::manifest().load("lamp oil"); }
void loadShip() {
  std::thread mate(stow);
  stow();
  mate.join();
}

// A counter that only one thread changes: the second thread does not get here.
static int crates = 0;  // entity: global-variable crates eager language
int countCrate() {
  crates = 7;
  return crates;
}

// Gives back what it takes.
class Ledger {  // entity: singleton Ledger lazy language
 public:
  static Ledger& ledger() {
    static Ledger instance;
    return instance;
  }
  Ledger(const Ledger&) = delete;
  void close() {
    if (file_) std::fclose(file_);
    file_ = nullptr;
  }

 private:
  Ledger() { file_ = std::fopen("ledger.txt", "a"); }
  std::FILE* file_ = nullptr;
};

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

// A parameter that happens to be called instance.
class Chandler {
 public:
  void serve(Chandler* instance) { served_ = instance; }

 private:
  Chandler* served_ = nullptr;
};
