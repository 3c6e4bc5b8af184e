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

// Double-checked with a volatile slot: sound.
class TideTable {  // entity: singleton TideTable lazy double-check
  private static volatile TideTable table;
  private int level;

  private TideTable() {}

  static TideTable get() {
    if (table == null) {
      synchronized (TideTable.class) {
        if (table == null) {
          table = new TideTable();  // finding: init.lazy-needless
        }
      }
    }
    return table;
  }

  synchronized void rise() {
    level++;
  }
}

// A lock on every access.
class SignalMast {  // entity: singleton SignalMast lazy lock
  private static SignalMast mast;
  private int flags;

  private SignalMast() {}

  static synchronized SignalMast get() {
    if (mast == null) {
      mast = new SignalMast();  // finding: init.lazy-needless
    }
    return mast;
  }

  synchronized void hoist() {
    flags++;
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
