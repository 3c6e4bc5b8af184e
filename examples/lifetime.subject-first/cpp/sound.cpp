// The board stands first, and goes last.
class NoticeBoard {
 public:
  void strike(int number) { struck_ += number; }

 private:
  int struck_ = 0;
};

class Notice {
 public:
  void pin(NoticeBoard* board) { board_ = board; }
  ~Notice() {
    if (board_) board_->strike(1);
  }

 private:
  NoticeBoard* board_ = nullptr;
};

class Hall {
 public:
  Hall() { notice_.pin(&board_); }

 private:
  NoticeBoard board_;
  Notice notice_;
};
