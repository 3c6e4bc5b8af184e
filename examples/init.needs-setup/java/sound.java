// It stands ready as soon as it stands.
import java.util.ArrayList;
import java.util.List;

final class CargoScale {
    private static final CargoScale SCALE = new CargoScale();
    private final List<Integer> weights = new ArrayList<>();

    private CargoScale() {
    }

    static CargoScale scale() {
        return SCALE;
    }

    synchronized void weigh(int crate) {
        weights.add(crate);
    }
}

class Crane {
    void lift() {
        CargoScale.scale().weigh(4);
    }
}
