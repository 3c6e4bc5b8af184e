#pragma once

class Buoy {
 public:
  int swing() { return ++swings_; }
  int swings() const { return swings_; }

 private:
  int swings_ = 0;
};

// The caller frees it.
Buoy* newBuoy(bool swinging);

int swingsOf(const Buoy* buoy);
