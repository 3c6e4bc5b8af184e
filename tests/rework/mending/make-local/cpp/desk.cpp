#include "desk.h"

int Desk::served_ = 2;

void Desk::serve(int ships) {
  Desk::served_ += ships * open_;
}
