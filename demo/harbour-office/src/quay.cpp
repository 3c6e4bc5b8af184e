#include "quay.h"

#include <utility>

#include "berth_book.h"
#include "duty.h"

namespace office {

Quay::Quay(std::string name, int firstBerth, int length)
    : name_(std::move(name)), firstBerth_(firstBerth), length_(length) {}

int Quay::moor(const std::string& ship) {
  for (int berth = firstBerth_; berth < firstBerth_ + length_; ++berth) {
    if (BerthBook::get().shipAt(berth).empty()) {
      BerthBook::get().assign(berth, ship);
      DutyLog::log().note(ship + " moored at " + name_);
      return berth;
    }
  }
  return -1;
}

bool Quay::leave(int berth) { return BerthBook::get().release(berth); }

int Quay::freeBerths() const {
  auto& book = BerthBook::get();
  int free = 0;
  for (int berth = firstBerth_; berth < firstBerth_ + length_; ++berth) {
    if (book.shipAt(berth).empty()) ++free;
  }
  return free;
}

int CraneGang::work(int berth, int tonsAnHour) const {
  const int shift = 8;
  if (BerthBook::get().shipAt(berth).empty()) return 0;
  return quay_.name().empty() ? 0 : shift * tonsAnHour;
}

}  // namespace office
