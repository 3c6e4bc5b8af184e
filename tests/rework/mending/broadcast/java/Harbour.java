final class Tides {
    private static final Tides SHARED = new Tides();
    private int started;

    private Tides() {
    }

    static Tides get() {
        return SHARED;
    }

    void start(String day) {
        started++;
        System.out.println("tides " + started + day);
    }
}

final class Berths {
    private static final Berths SHARED = new Berths();
    private int started;

    private Berths() {
    }

    static Berths get() {
        return SHARED;
    }

    void start(String day) {
        started++;
        System.out.println("berths " + started + day);
    }
}

final class Pilots {
    private static final Pilots SHARED = new Pilots();
    private int started;

    private Pilots() {
    }

    static Pilots get() {
        return SHARED;
    }

    void start(String day) {
        started++;
        System.out.println("pilots " + started + day);
    }
}

final class Harbour {
    private Harbour() {
    }

    /** Opens the harbour. */
    static void open(String day) {
        System.out.println("opening");
        Tides.get().start(day);
        Berths.get().start(day);
        Pilots.get().start("");
        System.out.println("open");
    }

    public static void main(String[] arguments) {
        open("Monday");
    }
}
