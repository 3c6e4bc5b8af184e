// The heights are read elsewhere and handed in.
import java.util.List;

final class TideTable {
    private final List<String> heights;

    TideTable(List<String> heights) {
        this.heights = heights;
    }

    int count() {
        return heights.size();
    }
}
