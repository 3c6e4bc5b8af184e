#pragma once
class NoticeBoard {
 public:
  static NoticeBoard& board() {
    static NoticeBoard instance;
    return instance;
  }
  NoticeBoard(const NoticeBoard&) = delete;
  void pin(int notices) { pinned_ += notices; }

 private:
  NoticeBoard() = default;
  int pinned_ = 0;
};
