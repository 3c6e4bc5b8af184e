// One slot in a base that is a template, one object for each class that derives from it: who asks for one makes no other.
#include <thread>
#include <vector>

template <typename Kind>
class NoticeBoard {
 public:
  static Kind* board() {
    if (!one_) one_ = new Kind;  // finding: thread.unguarded-creation
    return one_;
  }

 private:
  static Kind* one_;
};
template <typename Kind>
Kind* NoticeBoard<Kind>::one_ = nullptr;

class TideBoard : public NoticeBoard<TideBoard> {  // finding: single.open-constructor  // finding: single.copyable  // entity: singleton TideBoard lazy none
 public:
  void post() { ++posted_; }  // finding: thread.lost-update

 private:
  int posted_ = 0;
};
class FeeBoard : public NoticeBoard<FeeBoard> {  // finding: single.open-constructor  // finding: single.copyable  // entity: singleton FeeBoard lazy none
 public:
  void post() { ++posted_; }

 private:
  int posted_ = 0;
};

class BoardKeeper {
 public:
  void postFees() { FeeBoard::board()->post(); }
};

void postTides() {
  std::thread one([] { TideBoard::board()->post(); });
  std::thread two([] { TideBoard::board()->post(); });
  one.join();
  two.join();
}

// A slot that is emptied and filled again in one function is not torn down by it.
class Slate {
 public:
  void write() { ++lines_; }

 private:
  int lines_ = 0;
};
Slate* current_slate = nullptr;  // entity: shared-instance current_slate elsewhere none
void turnTo(Slate* next) {
  current_slate = nullptr;
  current_slate = next;
}
void turnAndWrite(Slate* next) {
  turnTo(next);
  current_slate->write();  // near: lifetime.used-after-teardown
}

// Settings that enter themselves in a list, and of which nobody is seen to make one.
class HarbourRate;
std::vector<HarbourRate*> harbour_rates;  // entity: global-variable harbour_rates eager language
class HarbourRate {
 public:
  explicit HarbourRate(int value) : value_(value) { harbour_rates.push_back(this); }  // finding: lifetime.dangling-subscriber
  int value() const { return value_; }

 private:
  int value_;
};
int feeOfAll() {
  int fee = 0;
  for (HarbourRate* rate : harbour_rates) fee += rate->value();
  return fee;
}
