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

    /** Tells those who listen, in the order in which they came, that the program starts. */
    private static final class StartUp {
        private final java.util.List<Runnable> listeners = new java.util.ArrayList<>();

        void add(Runnable listener) {
            listeners.add(listener);
        }

        void announce() {
            listeners.forEach(Runnable::run);
        }
    }

    /** Opens the harbour. */
    static void open(String day) {
        System.out.println("opening");
        StartUp startUp = new StartUp();
        startUp.add(() -> { Tides.get().start(day); });
        startUp.add(() -> { Berths.get().start(day); });
        startUp.add(() -> { Pilots.get().start(""); });
        startUp.announce();
        System.out.println("open");
    }

    public static void main(String[] arguments) {
        open("Monday");
    }
}
