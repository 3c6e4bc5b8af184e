package office.crew;

import office.TideTable;

public class Pilot {
    private final String name;
    private final int draught;

    public Pilot(String name, int draught) {
        this.name = name;
        this.draught = draught;
    }

    /** With the draught of a rowing boat. */
    public Pilot(String name) {
        this(name, 1);
    }

    public String advice(int hour) {
        boolean deep = TideTable.table().height(hour) > draught;
        return name + (deep ? " sails at " : " waits at ") + hour;
    }

    public Runnable reminder(int hour) {
        return () -> System.out.println(name + ": " + TideTable.table().height(hour));
    }
}
