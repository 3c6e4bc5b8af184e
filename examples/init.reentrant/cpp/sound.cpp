// It uses the object at hand.
class TideTable {
 public:
  static TideTable& table() {
    static TideTable instance;
    return instance;
  }
  TideTable(const TideTable&) = delete;
  int height() const { return height_; }

 private:
  TideTable() { fill(); }
  void fill() { height_ = height() + 1; }
  int height_ = 0;
};
