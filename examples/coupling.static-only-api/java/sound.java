// An object with the same members, which is handed in.
final class CargoScale {
    private int weighed;

    synchronized void weigh(int crates) {
        weighed += crates;
    }

    synchronized int weighed() {
        return weighed;
    }
}

class Crane {
    private final CargoScale scale;

    Crane(CargoScale scale) {
        this.scale = scale;
    }

    void lift() {
        scale.weigh(1);
    }
}
