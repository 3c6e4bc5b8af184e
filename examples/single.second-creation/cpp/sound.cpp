// The harbour master is handed the one there is.
class BerthBook {
 public:
  static BerthBook& book() {
    static BerthBook instance;
    return instance;
  }
  BerthBook(const BerthBook&) = delete;
  void moor(int ships) { moored_ += ships; }

 private:
  BerthBook() = default;
  int moored_ = 0;
};

class HarbourMaster {
 public:
  explicit HarbourMaster(BerthBook& book) : book_(book) {}
  void arrive() { book_.moor(1); }

 private:
  BerthBook& book_;
};
