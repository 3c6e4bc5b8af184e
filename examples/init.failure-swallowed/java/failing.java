// The failure is caught and dropped: everybody works with an empty table.
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

final class TideTable {
    private static final TideTable TABLE = new TideTable();
    private List<String> heights = new ArrayList<>();

    private TideTable() {
        try {
            heights = Files.readAllLines(Path.of("tides.txt"));
        } catch (IOException e) {
        }
    }

    static TideTable table() {
        return TABLE;
    }
}
