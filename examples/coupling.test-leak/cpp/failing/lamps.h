#pragma once
class LampRoom {
 public:
  static LampRoom& room() {
    static LampRoom instance;
    return instance;
  }
  LampRoom(const LampRoom&) = delete;
  void light(int lamps) { lit_ += lamps; }
  void snuff() { lit_ = 0; }
  int count() const { return lit_; }

 private:
  LampRoom() = default;
  int lit_ = 0;
};
