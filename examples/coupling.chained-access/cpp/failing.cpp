// To read the tide the ferry must know the office, where the one table is had.
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

class Office {
 public:
  static Office& office() {
    static Office instance;
    return instance;
  }
  Office(const Office&) = delete;
  TideTable& tides() { return TideTable::table(); }
  void open() { open_ = true; }

 private:
  Office() = default;
  bool open_ = false;
};

class Ferry {
 public:
  bool canSail() { return Office::office().tides().height() > 2; }
};
class Tug {
 public:
  bool canPull() { return Office::office().tides().height() > 1; }
};
