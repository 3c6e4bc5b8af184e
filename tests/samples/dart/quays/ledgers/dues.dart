// The dues of the harbour, in a layer of their own.
class HarbourDues {  // entity: singleton HarbourDues lazy language
  static final HarbourDues _dues = HarbourDues._();
  int _sum = 0;

  HarbourDues._();

  static HarbourDues get() => _dues;

  void enter(int coins) {
    _sum = _sum + coins;
  }

  void clear() {
    _sum = 0;
  }

  int total() => _sum;
}
