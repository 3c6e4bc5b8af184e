#pragma once

class Desk {
 public:
  void serve(int ships);
  int served() const { return served_; }

 private:
  int open_ = 1;
  int served_ = 2;  // since the morning
};
