// What reads like a function and is none, a specifier behind a macro, a branch that is not built, a
// variable that is written where we do not look.
#include "vexing.h"

#include <iostream>

static std::atomic<State> state (IDLE);  // entity: global-variable state eager language
OFFICE_PER_THREAD Store* mine = nullptr;  // entity: thread-local mine lazy language
std::string configDriver;  // entity: global-variable configDriver eager language
std::ostream& out = std::cout;  // harmless: out

Store& theStore() {
  static Store* store = new Store;
  return *store;
}

Store& ofThread() {
  if (!mine) mine = new Store;
  return *mine;
}

void begin() {
  Locker lock(theStore());
  state = BUSY;
}

bool configured() { return !configDriver.empty(); }

int depth() {
#ifdef OFFICE_SMALL
  return 0;
#else
  out << "deep";
  return theStore().n();
#endif
}

// A member that is defined with brackets is no function: outside of its class none is only declared.
class Flare {  // entity: singleton Flare lazy none  // finding: single.copyable
 public:
  static Flare* flare();
  void turn() { ++turns_; }

 private:
  Flare() = default;
  static Flare* flare_;
  static State lit_;
  int turns_ = 0;
};
Flare* Flare::flare_(nullptr);
State Flare::lit_(IDLE);  // entity: static-field lit_ eager language

Flare* Flare::flare() {
  if (!flare_) flare_ = new Flare();  // finding: thread.unguarded-creation
  lit_ = BUSY;
  return flare_;
}

// A table of such objects holds this one, which stays as it was made.
class Factory {
 public:
  explicit Factory(int kind) : kind_(kind) {}
  virtual ~Factory() = default;
  int kind() const { return kind_; }

 private:
  int kind_;
};

class SoundFactory : public Factory {
 public:
  SoundFactory() : Factory(1) {}
  int loud() const { return 2; }
};
static SoundFactory sound;  // harmless: sound

// A lock of the project's own.
class Latch {
 public:
  void lock() { inner_.lock(); }
  void unlock() { inner_.unlock(); }

 private:
  std::mutex inner_;
};
static Latch latch;  // harmless: latch

void quietly() {
  latch.lock();
  begin();
  latch.unlock();
}
