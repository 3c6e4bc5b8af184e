// Nothing in the pilot's signature tells that it needs the tides.
class TideTable {
 public:
  static TideTable& table() {
    static TideTable instance;
    return instance;
  }
  TideTable(const TideTable&) = delete;
  int height() const { return height_; }
  void set(int height) { height_ = height; }

 private:
  TideTable() = default;
  int height_ = 3;
};

class Pilot {
 public:
  bool canSail(int draught) const { return TideTable::table().height() > draught; }
  int spare(int draught) const { return TideTable::table().height() - draught; }
};
