#pragma once
#include <vector>
class LampRoom {  // entity: singleton LampRoom lazy language
 public:
  static LampRoom& room() {
    static LampRoom instance;
    return instance;
  }
  LampRoom(const LampRoom&) = delete;
  void light(int lamp) { lit_.push_back(lamp); }
  void snuff() { lit_.clear(); }
  int count() const { return static_cast<int>(lit_.size()); }

 private:
  LampRoom() = default;
  std::vector<int> lit_;
};
inline int oilLeft = 10;  // entity: global-variable oilLeft eager language
