// Who weighs before the opening meets a scale without a list.
import java.util.ArrayList;
import java.util.List;

final class CargoScale {
    private static final CargoScale SCALE = new CargoScale();
    private List<Integer> weights;

    private CargoScale() {
    }

    static CargoScale scale() {
        return SCALE;
    }

    void init() {
        weights = new ArrayList<>();
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
