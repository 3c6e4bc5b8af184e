#include "bell.h"
Bell& Bell::bell() {
  static Bell instance;
  return instance;
}
int Bell::strike(int times) { return strokes_ = times; }
