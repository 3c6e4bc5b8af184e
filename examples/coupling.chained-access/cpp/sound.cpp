// The ferry is handed the table that it reads.
class TideTable {
 public:
  int height() const { return height_; }
  void set(int height) { height_ = height; }

 private:
  int height_ = 3;
};

class Ferry {
 public:
  explicit Ferry(const TideTable& table) : table_(table) {}
  bool canSail() const { return table_.height() > 2; }

 private:
  const TideTable& table_;
};
