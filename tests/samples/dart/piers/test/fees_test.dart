import '../ledgers/fees.dart';

// Leaves behind what it set.
void testTwice() {
  fees.total = 30;  // near: coupling.test-leak
  if (fees.total != 30) throw Error('total');
}
