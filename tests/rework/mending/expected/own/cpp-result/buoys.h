#pragma once

#include <memory>

class Buoy {
 public:
  int swing() { return ++swings_; }
  int swings() const { return swings_; }

 private:
  int swings_ = 0;
};

// The caller frees it.
std::unique_ptr<Buoy> newBuoy(bool swinging);

int swingsOf(const Buoy* buoy);
