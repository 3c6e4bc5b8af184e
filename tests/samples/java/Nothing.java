import java.util.HashMap;
import java.util.Map;

// Made without the part that could change; near miss: one that has it.
final class Visited {
  private final Map<String, Boolean> visited;

  static final Visited NEVER = new Visited(null);  // harmless: NEVER
  static final Visited ALWAYS = new Visited(new HashMap<>());  // entity: static-field ALWAYS eager language

  private Visited(Map<String, Boolean> visited) {
    this.visited = visited;
  }

  boolean isFirst(String ship) {
    return visited != null && visited.put(ship, true) == null;
  }
}
