#pragma once

class Desk {
 public:
  void serve(int ships);
  int served() const { return served_; }

 private:
  int open_ = 1;
  static int served_;  // since the morning
};
