#pragma once

#include <string>

namespace office {

// A stretch of berths under one name.
class Quay {
 public:
  Quay(std::string name, int firstBerth, int length = 4);

  // The berth given to the ship, or -1 when the quay is full.
  int moor(const std::string& ship);
  bool leave(int berth);
  int freeBerths() const;
  const std::string& name() const { return name_; }

 private:
  std::string name_;
  int firstBerth_;
  int length_;
};

// Works ships along one quay; a gang belongs to its quay.
class CraneGang {
 public:
  explicit CraneGang(const Quay& quay) : quay_(quay) {}

  // Tons moved in a shift: nothing at an empty berth.
  int work(int berth, int tonsAnHour) const;

 private:
  const Quay& quay_;
};

}  // namespace office
