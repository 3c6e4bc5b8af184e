#pragma once

struct Crate {
  int weight = 0;
};
