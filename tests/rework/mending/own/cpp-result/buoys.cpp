#include "buoys.h"

Buoy* newBuoy(bool swinging) {
  Buoy* buoy = new Buoy;
  if (swinging) buoy->swing();
  return buoy;
}

int swingsOf(const Buoy* buoy) { return buoy->swings(); }
