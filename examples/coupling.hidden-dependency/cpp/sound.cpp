// The pilot is handed the tides; a test hands in its own.
class TideTable {
 public:
  int height() const { return height_; }
  void set(int height) { height_ = height; }

 private:
  int height_ = 3;
};

class Pilot {
 public:
  explicit Pilot(const TideTable& table) : table_(table) {}
  bool canSail(int draught) const { return table_.height() > draught; }
  int spare(int draught) const { return table_.height() - draught; }

 private:
  const TideTable& table_;
};
