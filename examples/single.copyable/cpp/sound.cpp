// Copying is closed: the mistake above does not compile.
class BerthBook {
 public:
  static BerthBook& book() {
    static BerthBook instance;
    return instance;
  }
  BerthBook(const BerthBook&) = delete;
  BerthBook& operator=(const BerthBook&) = delete;
  void moor(int ships) { moored_ += ships; }

 private:
  BerthBook() = default;
  int moored_ = 0;
};

void arrive() {
  BerthBook& book = BerthBook::book();
  book.moor(1);
}
