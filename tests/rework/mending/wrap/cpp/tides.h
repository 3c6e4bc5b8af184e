#pragma once

// What the tide table says; the levels are those of the whole harbour.
class Tides {
 public:
  static int height(int day, int hour = 0);
  static void raise(int by);
  static void forget() { level_ = 0; }

 private:
  static int level_;
};
