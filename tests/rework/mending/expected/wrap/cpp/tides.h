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

class TidesWrapper {
public:
  virtual ~TidesWrapper() = default;
  virtual int height(int day, int hour = 0) { return Tides::height(day, hour); }
  virtual void raise(int by) { Tides::raise(by); }
};
