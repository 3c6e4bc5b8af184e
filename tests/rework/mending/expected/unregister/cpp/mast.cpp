#include "mast.h"

void SignalMast::attach(Keeper* keeper) {
  keepers_.push_back(keeper);
}

void SignalMast::raise(int signal) {
  for (Keeper* keeper : std::vector<Keeper*>(keepers_)) keeper->heard(signal);
}

SignalMast& theMast() {
  static SignalMast mast;
  return mast;
}

Lookout::Lookout(SignalMast& mast) : mast_(mast) {
  mast.attach(this);
}

Lookout::~Lookout() { mast_.detach(this); }

void Lookout::heard(int signal) { last_ = signal; }

int main() {
  {
    Lookout lookout(theMast());
    theMast().raise(1);
  }
  theMast().raise(2);
  return 0;
}
