import '../ledgers/dues.dart';

// A layer that may reach none.
class Hall {
  int show() {
    return HarbourDues.get().total();  // finding: coupling.layer-breach
  }
}
