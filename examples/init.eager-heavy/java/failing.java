// The file is read when the class is first named, whatever it was named for.
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

final class TideTable {
    private static final TideTable TABLE = new TideTable();
    private List<String> heights;

    private TideTable() {
        try {
            heights = Files.readAllLines(Path.of("tides.txt"));
        } catch (IOException e) {
            throw new IllegalStateException("tides.txt", e);
        }
    }

    static TideTable table() {
        return TABLE;
    }

    int count() {
        return heights.size();
    }
}
