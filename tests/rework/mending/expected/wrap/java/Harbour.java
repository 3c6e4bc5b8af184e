final class Tides {
    private static int first = 4;

    private Tides() {
    }

    static synchronized int height(int day) {
        return first + day;
    }

    static void raise(int by) {
        first += by;
    }

    static void forget() {
        first = 0;
    }
}

class TidesWrapper {
    int height(int day) {
        return Tides.height(day);
    }

    void raise(int by) {
        Tides.raise(by);
    }
}

final class Pilot {
    private final TidesWrapper tidesWrapper;
    private final String name;

    Pilot(String name, TidesWrapper tidesWrapper) {
        this.tidesWrapper = tidesWrapper;
        this.name = name;
    }

    boolean mayEnter(int draught, int day) {
        tidesWrapper.raise(1);
        return tidesWrapper.height(day) > draught && !name.isEmpty();
    }
}

final class Harbour {
    private Harbour() {
    }

    public static void main(String[] arguments) {
        System.out.println(new Pilot("first", new TidesWrapper()).mayEnter(3, 1));
    }
}
