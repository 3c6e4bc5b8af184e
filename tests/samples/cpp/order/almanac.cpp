#include <fstream>

#include "beacon.h"
#include "depths.h"

Almanac almanac("almanac.txt");  // entity: shared-instance almanac eager language // finding: init.order-across-files init.eager-heavy

static int readDays(const std::string& path) {
  std::ifstream in(path);
  int days = 0;
  in >> days;
  return days;
}

Almanac::Almanac(const std::string& path) { days_ = readDays(path) * beacon.period(); }

// Near miss: what an included header defines is initialised with this file, in the order of the text.
static std::vector<int> soundings(kDepths.begin(), kDepths.end());  // entity: global-variable soundings eager language  // near: init.order-across-files

int sound(int at) { return soundings[static_cast<size_t>(at)]++; }
