// One test after the first time.
class TideTable {
 public:
  static TideTable& table() {
    static TideTable instance;
    return instance;
  }
  TideTable(const TideTable&) = delete;
  int height(int hour) const { return heights_[hour % 3]; }

 private:
  TideTable() = default;
  int heights_[3] = {3, 1, 4};
};

int lowest() {
  int low = 100;
  for (int hour = 0; hour < 24; ++hour)
    if (TideTable::table().height(hour) < low) low = TideTable::table().height(hour);
  return low;
}
