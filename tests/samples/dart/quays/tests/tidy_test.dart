import '../ledgers/dues.dart';

// Near miss: puts it back.
void addsUpAndClears() {
  HarbourDues.get().enter(3);  // near: tie.test-leak
  HarbourDues.get().clear();
}
