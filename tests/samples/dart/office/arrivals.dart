import 'books.dart';
import 'books.dart' as office show tide;

class Arrivals with Numbered implements Comparable<Arrivals> {
  final book = BerthBook();
  final Crane crane;

  Arrivals({required this.crane});

  int arrive(String ship) {
    book.assign(ship, 4);  // near: coupling.hidden-dependency
    PilotRoster().add(ship);
    SignalMast.instance.flag = ship;  // finding: coupling.hidden-dependency
    CargoScale('east').load = 3;
    waiting.add(ship);
    mainCrane.lift();
    tide = tide + 1;
    office.tide++;
    final next = Tickets.draw();
    for (final one in waiting) {
      if (one == ship) return 1;
    }
    crane..lift()..lift();
    return next + BerthBook().count;
  }

  void depart() {
    SignalMast.instance.flag = '';
  }

  Future<int> log() async {
    final log = await DutyLog.open();
    try {
      log.lines.add('in');
    } on FormatException catch (e) {
      print('$e ${log.lines}');
      rethrow;
    } finally {
      waiting.clear();
    }
    return log.lines.length;
  }
}
