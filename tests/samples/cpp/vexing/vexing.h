#pragma once
#include <atomic>
#include <mutex>
#include <string>

#define OFFICE_PER_THREAD thread_local

enum State { IDLE, BUSY };

class Store {  // entity: shared-instance Store lazy language
 public:
  void put(int n) { n_ += n; }
  int n() const { return n_; }

 private:
  int n_ = 0;
};

Store& theStore();

class Locker {
 public:
  explicit Locker(Store& store) : store_(store) { store_.put(1); }
  ~Locker() { store_.put(-1); }

 private:
  Store& store_;
};

extern std::string configDriver;
