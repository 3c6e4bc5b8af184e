// Only the door makes it.
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

void arrive() { BerthBook::book().moor(1); }
