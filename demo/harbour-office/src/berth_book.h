#pragma once

#include <map>
#include <string>

namespace office {

// Which ship lies at which berth.
class BerthBook {
 public:
  static BerthBook& get();

  BerthBook(const BerthBook&) = delete;
  BerthBook& operator=(const BerthBook&) = delete;

  bool assign(int berth, const std::string& ship);
  bool release(int berth);
  std::string shipAt(int berth) const;
  int occupied() const;
  void clear();

 private:
  BerthBook();

  static BerthBook* slot_;

  std::map<int, std::string> berths_;
  int entries_;
};

}  // namespace office
