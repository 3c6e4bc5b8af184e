#include "desk.h"

void Desk::serve(int ships) {
  Desk::served_ += ships * open_;
}
