#pragma once
#include "desk.h"

class NoticeBoard : public Board {
 public:
  static NoticeBoard& board() {
    static NoticeBoard instance;
    return instance;
  }
  NoticeBoard(const NoticeBoard&) = delete;
  void pin(int notices) override { pinned_ += notices; }

 private:
  NoticeBoard() = default;
  int pinned_ = 0;
};
