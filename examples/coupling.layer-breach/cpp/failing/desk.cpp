#include "hall.h"

class Clerk {
 public:
  void write() { NoticeBoard::board().pin(1); }
};
