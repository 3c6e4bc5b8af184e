#pragma once

// The water's height.
class TideTable {
 public:
  explicit TideTable(int first) : first_(first) {}
  ~TideTable() = default;
  TideTable(const TideTable&) = delete;
  int height(int day) const { return first_ + day; }
  void raise(int by) { first_ += by; }

 private:
  int first_;
};
