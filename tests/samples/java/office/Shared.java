package harbour.office;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;

// A class of static members only, with state.
final class TicketOffice {  // entity: static-holder TicketOffice eager language
  private static int next = 1;

  private TicketOffice() {}

  static int draw() {
    return next++;  // finding: thread.lost-update
  }
}

class Tug {
  static int count;  // entity: static-field count eager language
  static final AtomicInteger HORNS = new AtomicInteger();  // harmless: HORNS
  String name = "";

  Tug() {
    count++;  // finding: thread.lost-update
  }

  void pull() {}
}

// A keyed table of instances.
class TugYard {
  private static final Map<String, Tug> TUGS = new ConcurrentHashMap<>();  // entity: registry TUGS eager language

  static Tug named(String name) {
    return TUGS.computeIfAbsent(name, n -> new Tug());
  }

  void launch(String name) {
    TUGS.put(name, new Tug());
  }
}

// Near misses: a table that never changes, a factory, a constant, a value object.
class Codes {
  static final Map<String, String> NAMES = Map.of("A", "anchor");  // harmless: NAMES
  static final int LIMIT = 12;  // harmless: LIMIT
  static final Position HOME = new Position(1, 2);  // harmless: HOME
  static final List<String> NONE = new ArrayList<>();  // harmless: NONE
}

final class Position {
  final int x, y;

  Position(int x, int y) {
    this.x = x;
    this.y = y;
  }
}

class Barge {
  private int load;

  static Barge getInstance() {
    return new Barge();
  }

  void load(int tons) {
    load += tons;
  }
}

class Waiting {
  static final List<String> SHIPS = new ArrayList<>();  // entity: static-field SHIPS eager language

  void arrive(String ship) {
    SHIPS.add(ship);
  }
}
