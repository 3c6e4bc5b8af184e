#include <fstream>

#include "beacon.h"

Almanac almanac("almanac.txt");  // entity: shared-instance almanac eager language // finding: init.order-across-files init.eager-heavy

static int readDays(const std::string& path) {
  std::ifstream in(path);
  int days = 0;
  in >> days;
  return days;
}

Almanac::Almanac(const std::string& path) { days_ = readDays(path) * beacon.period(); }
