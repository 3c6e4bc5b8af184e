package harbour.office;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;

class Waiting {
  static final List<String> SHIPS = new ArrayList<>();  // entity: static-field SHIPS eager language

  void arrive(String ship) {
    SHIPS.add(ship);
  }
}
