#include "berth_book.h"

namespace office {

BerthBook* BerthBook::slot_ = nullptr;

BerthBook::BerthBook() : entries_(0) {}

BerthBook& BerthBook::get() {
  if (slot_ == nullptr) {
    slot_ = new BerthBook();
  }
  return *slot_;
}

bool BerthBook::assign(int berth, const std::string& ship) {
  ++entries_;
  return berths_.emplace(berth, ship).second;
}

bool BerthBook::release(int berth) {
  ++entries_;
  return berths_.erase(berth) > 0;
}

std::string BerthBook::shipAt(int berth) const {
  auto found = berths_.find(berth);
  return found == berths_.end() ? "" : found->second;
}

int BerthBook::occupied() const { return static_cast<int>(berths_.size()); }

void BerthBook::clear() {
  berths_.clear();
  entries_ = 0;
}

}  // namespace office
