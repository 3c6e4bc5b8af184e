#include "tide_table.h"

#include <fstream>
#include <sstream>

#include "harbour_clock.h"

namespace office {

TideTable tideTable(OFFICE_DATA "/tides.txt");

TideTable::TideTable(const std::string& path) {
  std::ifstream in(path);
  std::string line;
  while (std::getline(in, line)) {
    if (line.empty() || line[0] == '#') continue;
    Tide tide;
    std::istringstream(line) >> tide.day >> tide.high >> tide.low;
    if (tide.day >= harbourClock.day()) tides_.push_back(tide);
  }
}

const Tide* TideTable::on(int day) const {
  for (const Tide& tide : tides_)
    if (tide.day == day) return &tide;
  return nullptr;
}

}  // namespace office
