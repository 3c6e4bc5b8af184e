#pragma once
// What the desk needs; the hall has one.
class Board {
 public:
  virtual ~Board() = default;
  virtual void pin(int notices) = 0;
};
