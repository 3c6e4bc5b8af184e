// What the constructor needs stands above it.
final class CargoScale {
    private static final int LIMIT = Integer.parseInt("40");
    private static final CargoScale SCALE = new CargoScale();
    private final int most;

    private CargoScale() {
        most = LIMIT;
    }

    static CargoScale scale() {
        return SCALE;
    }

    int most() {
        return most;
    }
}
