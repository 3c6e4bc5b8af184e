// The log is closed, and then written to.
import java.io.IOException;
import java.io.StringWriter;
import java.io.Writer;

final class DutyLog {
    private static final DutyLog LOG = new DutyLog();
    private Writer out = new StringWriter();

    private DutyLog() {
    }

    static DutyLog log() {
        return LOG;
    }

    synchronized void write(String entry) throws IOException {
        out.write(entry);
    }

    synchronized void close() throws IOException {
        out.close();
        out = null;
    }
}

class Office {
    void evening() throws IOException {
        DutyLog.log().close();
        DutyLog.log().write("lights out");
    }
}
