#include <algorithm>
#include <vector>

namespace blocks {

class Watcher {
 public:
  virtual ~Watcher() = default;
  virtual void seen(int flag) = 0;
};

class Mast {
 public:
  void add(Watcher* watcher) { watchers_.push_back(watcher); }
  void remove(Watcher* watcher) { watchers_.erase(std::find(watchers_.begin(), watchers_.end(), watcher)); }
  void hoist(int flag) {
    for (Watcher* watcher : watchers_) watcher->seen(flag);
  }

 private:
  std::vector<Watcher*> watchers_;
};

class Tower : public Watcher {
 public:
  void seen(int flag) override { last_ = flag; }

 private:
  int last_ = 0;
};

// The second tower ends with its block, and the mast goes on calling it.
void watch() {
  Mast mast;
  Tower first;
  mast.add(&first);
  {
    Tower second;
    mast.add(&second);  // finding: lifetime.dangling-subscriber
  }
  mast.hoist(1);
}

// So does one that a function adds to what it was handed.
void visit(Mast& mast) {
  Tower visitor;
  mast.add(&visitor);  // finding: lifetime.dangling-subscriber
}

// Near miss: taken out again.
void call(Mast& mast) {
  Tower caller;
  mast.add(&caller);  // near: lifetime.dangling-subscriber
  mast.hoist(2);
  mast.remove(&caller);
}

// Near miss: the mast ends first.
void practise() {
  Tower tower;
  {
    Mast mast;
    mast.add(&tower);  // near: lifetime.dangling-subscriber
    mast.hoist(3);
  }
}

}  // namespace blocks
