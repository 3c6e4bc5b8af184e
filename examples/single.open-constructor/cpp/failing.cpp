// Anyone can make a second book.
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

void arrive() { BerthBook::book().moor(1); }
