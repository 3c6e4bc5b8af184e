// The scale is made before the limit above it has its value: it sees 0.
final class CargoScale {
    private static final CargoScale SCALE = new CargoScale();
    private static int limit = Integer.parseInt("40");
    private final int most;

    private CargoScale() {
        most = limit;
    }

    static CargoScale scale() {
        return SCALE;
    }

    int most() {
        return most;
    }
}
