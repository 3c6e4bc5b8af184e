package harbour.office;

import java.util.HashMap;
import java.util.Map;

// Created lazily without a guard.
public final class BerthBook {  // entity: singleton BerthBook lazy none
  private static BerthBook instance;
  private final Map<String, Integer> berths = new HashMap<>();
  private int changes;

  private BerthBook() {}

  public static BerthBook getInstance() {
    if (instance == null) {
      instance = new BerthBook();  // finding: thread.unguarded-creation
    }
    return instance;
  }

  public void assign(String ship, int berth) {
    berths.put(ship, berth);  // near: lifetime.grows-forever
    changes++;
  }

  public int changes() {
    return changes;
  }
}
