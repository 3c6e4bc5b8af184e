import 'doors.dart';
import 'doors.dart' as doors;

void open() {
  Shift.begin('day');
  theQuay().ships = 2;  // finding: coupling.hidden-dependency
  doors.theQuay().ships += 1;
  RadarPlot.open();
  RadarPlot.plot?.echoes = 1;  // finding: coupling.hidden-dependency
}

// Near misses: fixed, local, made anew.
const limits = {'north': 2, 'south': 3};  // harmless: limits

class Receipt {
  const Receipt(this.number);
  final int number;
  static const none = Receipt(0);  // harmless: none
}
