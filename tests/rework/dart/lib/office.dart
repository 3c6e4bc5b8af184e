import 'tides.dart';

class Pilot {
  Pilot(this.name, this.draught);

  final String name;
  final int draught;

  String advice(int hour) {
    final deep = TideTable.instance.height(hour) > draught;
    return name + (deep ? ' sails at ' : ' waits at ') + hour.toString();
  }
}

class Ferry {
  int departure() {
    var hour = 0;
    while (TideTable.instance.height(hour) < 6) {
      hour++;
    }
    return hour;
  }
}

class Office {
  final List<Pilot> pilots = [];

  void hire(String name, int draught) {
    pilots.add(Pilot(name, draught));
  }

  String day() {
    final lines = [for (final pilot in pilots) pilot.advice(4)];
    lines.add('ferry at ${Ferry().departure()}');
    return lines.join('\n');
  }
}
