#pragma once

class Desk {
 public:
  int enter(int day);

 private:
  int entered_ = 0;
};
