#pragma once

// The water's height.
class TideTable {
 public:
  static TideTable& get();
  TideTable(const TideTable&) = delete;
  int height(int day) const { return first_ + day; }
  void raise(int by) { first_ += by; }

 private:
  explicit TideTable(int first) : first_(first) {}
  ~TideTable() = default;

  int first_;
};
