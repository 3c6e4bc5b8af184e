import '../ledgers/dues.dart';

// Leaves behind what it entered.
void addsUp() {
  HarbourDues.get().enter(3);  // finding: coupling.test-leak
  HarbourDues.get().enter(4);
}
