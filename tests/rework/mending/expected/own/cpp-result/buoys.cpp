#include "buoys.h"

#include <memory>

std::unique_ptr<Buoy> newBuoy(bool swinging) {
  std::unique_ptr<Buoy> buoy = std::make_unique<Buoy>();
  if (swinging) buoy->swing();
  return buoy;
}

int swingsOf(const Buoy* buoy) { return buoy->swings(); }
