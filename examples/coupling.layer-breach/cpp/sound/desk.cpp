#include "desk.h"

class Clerk {
 public:
  explicit Clerk(Board& board) : board_(board) {}
  void write() { board_.pin(1); }

 private:
  Board& board_;
};
