// `auto book = BerthBook::book();` makes a copy, and nobody notices.
class BerthBook {
 public:
  static BerthBook& book() {
    static BerthBook instance;
    return instance;
  }
  void moor(int ships) { moored_ += ships; }

 private:
  BerthBook() = default;
  int moored_ = 0;
};

void arrive() {
  auto book = BerthBook::book();
  book.moor(1);
}
