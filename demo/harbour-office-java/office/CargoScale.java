package office;

/** The one scale on the quay. */
public final class CargoScale {
    private static CargoScale scale;

    private final int tare = 20;

    private CargoScale() {
    }

    public static synchronized CargoScale scale() {
        if (scale == null) {
            scale = new CargoScale();
        }
        return scale;
    }

    public int weigh(int kilos) {
        return kilos - tare;
    }

    public static int weighAll(int[] kilos) {
        int total = 0;
        for (int each : kilos) {
            total += CargoScale.scale().weigh(each);
        }
        return total;
    }
}
