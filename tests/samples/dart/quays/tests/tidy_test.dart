import '../ledgers/dues.dart';

// Near miss: puts it back.
void addsUpAndClears() {
  HarbourDues.get().enter(3);  // near: coupling.test-leak
  HarbourDues.get().clear();
}
