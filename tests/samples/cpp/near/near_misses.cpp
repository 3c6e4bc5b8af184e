#include <cstdio>
#include <memory>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

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
