// A copy, made under the lock.
import java.util.ArrayList;
import java.util.List;

final class DutyLog {
    private static final DutyLog LOG = new DutyLog();
    private final List<String> entries = new ArrayList<>();

    private DutyLog() {
    }

    static DutyLog log() {
        return LOG;
    }

    synchronized void write(String entry) {
        entries.add(entry);
    }

    synchronized void clear() {
        entries.clear();
    }

    synchronized List<String> entries() {
        return new ArrayList<>(entries);
    }
}
