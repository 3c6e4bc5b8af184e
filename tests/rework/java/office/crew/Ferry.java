package office.crew;

import office.TideTable;

public class Ferry {
    public int departure() {
        int hour = 0;
        while (TideTable.table().height(hour) < 6) {
            hour++;
        }
        return hour;
    }
}
