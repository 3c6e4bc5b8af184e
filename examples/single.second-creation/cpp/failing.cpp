// The harbour master fills a book of his own.
class BerthBook {
 public:
  static BerthBook& book() {
    static BerthBook instance;
    return instance;
  }
  BerthBook() = default;
  BerthBook(const BerthBook&) = delete;
  void moor(int ships) { moored_ += ships; }

 private:
  int moored_ = 0;
};

class HarbourMaster {
 public:
  void arrive() { book_.moor(1); }

 private:
  BerthBook book_;
};
