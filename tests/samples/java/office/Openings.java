package harbour.office;

import java.io.Serializable;

// Can be stored and read back; and only the first caller's argument counts.
class WeatherStation implements Serializable {  // entity: singleton WeatherStation lazy lock // finding: single.revivable
  private static WeatherStation station;
  private final String port;
  private int readings;

  private WeatherStation(String port) {
    this.port = port;
  }

  static WeatherStation of(String port) {  // finding: init.arguments-ignored
    synchronized (WeatherStation.class) {
      if (station == null) {
        station = new WeatherStation(port);
      }
      return station;
    }
  }

  synchronized int read() {
    readings++;
    return readings;
  }
}

// The slot is replaced by production code.
class Lamp {  // entity: singleton Lamp eager language // finding: single.open-constructor
  private static Lamp lamp = new Lamp();
  private int hours;

  static Lamp get() {
    return lamp;
  }

  static void use(Lamp other) {
    lamp = other;  // finding: single.replaceable
  }

  synchronized int burn() {
    return ++hours;
  }
}

class Keeper {
  int night() {
    Lamp.use(new Lamp());  // finding: single.second-creation
    return Lamp.get().burn() + WeatherStation.of("north").read() + WeatherStation.of("south").read();  // finding: coupling.hidden-dependency
  }
}
