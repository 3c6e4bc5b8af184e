package duty;

import java.util.HashMap;
import java.util.Map;

// Filled once, when it is first asked.
final class SignalFlags {  // entity: static-holder SignalFlags eager language
    private static final Map<String, Integer> CODES = new HashMap<>();
    private static boolean filled;

    private SignalFlags() {
    }

    private static void fill() {
        for (String name : new String[] {"alpha", "bravo", "charlie"}) {
            CODES.put(name, name.length());  // near: lifetime.grows-forever
        }
        filled = true;
    }

    static synchronized int codeOf(String name) {
        if (!filled) {
            fill();
        }
        return CODES.getOrDefault(name, 0);
    }
}
