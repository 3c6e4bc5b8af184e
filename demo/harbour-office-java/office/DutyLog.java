package office;

import java.util.ArrayList;
import java.util.List;

/** What happened on duty, line by line. */
public enum DutyLog {
    LOG;

    private final List<String> lines = new ArrayList<>();

    public synchronized void note(String line) {
        lines.add(line);
    }

    public synchronized int length() {
        return lines.size();
    }
}
