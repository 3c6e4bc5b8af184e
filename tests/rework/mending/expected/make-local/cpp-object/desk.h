#pragma once

#include "tides.h"

class Desk {
 public:
  int enter(int day);

 private:
  int entered_ = 0;
  TideTable tideTable_{4};
};
