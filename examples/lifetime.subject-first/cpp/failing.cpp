// The board is destroyed before the notice whose destructor uses it.
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
  Notice notice_;
  NoticeBoard board_;
};
