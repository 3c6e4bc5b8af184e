package harbour.office;

import java.util.ArrayList;
import java.util.List;

// Double-checked, but the slot is not volatile.
class PilotRoster {  // entity: singleton PilotRoster lazy double-check-unsound
  private static PilotRoster roster;
  private final List<String> pilots = new ArrayList<>();

  private PilotRoster() {}

  static PilotRoster get() {
    if (roster == null) {  // finding: thread.double-check-unsound
      synchronized (PilotRoster.class) {
        if (roster == null) {
          roster = new PilotRoster();  // finding: init.lazy-needless
        }
      }
    }
    return roster;
  }

  synchronized void add(String pilot) {
    pilots.add(pilot);  // finding: lifetime.grows-forever
  }
}

// A nested holder: lazy, under the guard of class initialisation.
class HarbourClock {  // entity: singleton HarbourClock lazy language
  private long ticks;

  private HarbourClock() {}

  private static class Holder {
    static final HarbourClock INSTANCE = new HarbourClock();
  }

  static HarbourClock get() {
    return Holder.INSTANCE;
  }

  synchronized void tick() {
    ticks++;
  }
}

// An enum with one constant and state.
enum FlagLocker {  // entity: singleton FlagLocker eager language
  INSTANCE;

  private int flags;

  synchronized void put() {
    flags++;
  }
}
