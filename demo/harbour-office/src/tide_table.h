#pragma once

#include <string>
#include <vector>

namespace office {

struct Tide {
  int day = 0;
  int high = 0;  // centimetres
  int low = 0;   // centimetres
};

// High and low water for the days to come, read from the yearly file.
class TideTable {
 public:
  explicit TideTable(const std::string& path);
  TideTable(const TideTable&) = delete;
  TideTable& operator=(const TideTable&) = delete;

  const Tide* on(int day) const;
  int days() const { return static_cast<int>(tides_.size()); }

 private:
  std::vector<Tide> tides_;
};

extern TideTable tideTable;

}  // namespace office
