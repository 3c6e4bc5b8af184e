#include "proxy.h"

void Proxy::enter(const Kind* kind, bool fresh) { kinds_[kind] = fresh; }

void Proxy::synchronize(const Board* board) { enter(board, true); }
