// The failure goes out, with what was tried.
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

final class TideTable {
    private static final TideTable TABLE = new TideTable();
    private final List<String> heights;

    private TideTable() {
        try {
            heights = Files.readAllLines(Path.of("tides.txt"));
        } catch (IOException e) {
            throw new UncheckedIOException("tides.txt", e);
        }
    }

    static TideTable table() {
        return TABLE;
    }
}
