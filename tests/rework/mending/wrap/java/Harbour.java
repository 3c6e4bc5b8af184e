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

final class Pilot {
    private final String name;

    Pilot(String name) {
        this.name = name;
    }

    boolean mayEnter(int draught, int day) {
        Tides.raise(1);
        return Tides.height(day) > draught && !name.isEmpty();
    }
}

final class Harbour {
    private Harbour() {
    }

    public static void main(String[] arguments) {
        System.out.println(new Pilot("first").mayEnter(3, 1));
    }
}
