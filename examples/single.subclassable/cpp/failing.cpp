// A subclass can be made beside the one.
class BerthBook {
 public:
  static BerthBook& book() {
    static BerthBook instance;
    return instance;
  }
  BerthBook(const BerthBook&) = delete;
  void moor(int ships) { moored_ += ships; }

 protected:
  BerthBook() = default;

 private:
  int moored_ = 0;
};

class NightBook : public BerthBook {};
NightBook nightBook;
