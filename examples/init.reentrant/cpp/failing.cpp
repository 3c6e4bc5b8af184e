// While the table is made it asks for the table: the program hangs or throws.
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
  void fill() { height_ = table().height() + 1; }
  int height_ = 0;
};
