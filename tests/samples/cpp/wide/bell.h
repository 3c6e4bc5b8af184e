#pragma once
class Bell {  // entity: singleton Bell lazy language // finding: coupling.wide-reach
 public:
  static Bell& bell();
  Bell(const Bell&) = delete;
  int strokes() const { return strokes_; }
  int strike(int times);

 private:
  Bell() = default;
  int strokes_ = 0;
};
