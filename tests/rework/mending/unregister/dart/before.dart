abstract class Keeper {
  void heard(int signal);
}

class SignalMast {
  static final SignalMast mast = SignalMast._();
  final List<Keeper> _keepers = [];

  SignalMast._();

  void subscribe(Keeper keeper) {
    _keepers.add(keeper);
  }

  void raise(int signal) {
    for (final keeper in _keepers.toList()) {
      keeper.heard(signal);
    }
  }
}

class Lookout implements Keeper {
  int last = 0;

  Lookout() {
    SignalMast.mast.subscribe(this);
  }

  void heard(int signal) {
    last = signal;
  }

  void dispose() {
    last = 0;
  }
}
