import 'doors.dart';
import 'doors.dart' as doors;

// Near misses: fixed, local, made anew.
const limits = {'north': 2, 'south': 3};  // harmless: limits

class Receipt {
  const Receipt(this.number);
  final int number;
  static const none = Receipt(0);  // harmless: none
}
