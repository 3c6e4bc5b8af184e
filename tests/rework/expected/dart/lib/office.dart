import 'tides.dart';

class Pilot {
  Pilot(this.name, this.draught, {TideTable? tideTable}) : tideTable = tideTable ?? TideTable.instance;

  final String name;
  final int draught;
  final TideTable tideTable;

  String advice(int hour) {
    final deep = tideTable.height(hour) > draught;
    return name + (deep ? ' sails at ' : ' waits at ') + hour.toString();
  }
}

class Ferry {
  final TideTable tideTable;

  Ferry({TideTable? tideTable}) : tideTable = tideTable ?? TideTable.instance;

  int departure() {
    var hour = 0;
    while (tideTable.height(hour) < 6) {
      hour++;
    }
    return hour;
  }
}

class Office {
  final List<Pilot> pilots = [];
  final TideTable? tideTable;

  Office({this.tideTable});

  void hire(String name, int draught) {
    pilots.add(Pilot(name, draught, tideTable: tideTable));
  }

  String day() {
    final lines = [for (final pilot in pilots) pilot.advice(4)];
    lines.add('ferry at ${Ferry(tideTable: tideTable).departure()}');
    return lines.join('\n');
  }
}
