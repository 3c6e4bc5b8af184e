#pragma once
// The harbour's dues, of the layer that keeps the books.
class DuesBook {  // entity: singleton DuesBook lazy language
 public:
  static DuesBook& book() {
    static DuesBook instance;
    return instance;
  }
  DuesBook(const DuesBook&) = delete;
  void pay(int coins) { total_ += coins; }
  int total() const { return total_; }

 private:
  DuesBook() = default;
  int total_ = 0;
};

class FeeBook {  // entity: singleton FeeBook lazy language
 public:
  static FeeBook& book() {
    static FeeBook instance;
    return instance;
  }
  FeeBook(const FeeBook&) = delete;
  void pay(int coins) { total_ += coins; }
  int total() const { return total_; }

 private:
  FeeBook() = default;
  int total_ = 0;
};
