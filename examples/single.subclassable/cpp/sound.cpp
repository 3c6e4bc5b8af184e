// Final, and its constructor is closed.
class BerthBook final {
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
