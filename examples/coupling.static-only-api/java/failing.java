// There is no object that a test could replace.
final class CargoScale {
    private static int weighed;

    private CargoScale() {
    }

    static synchronized void weigh(int crates) {
        weighed += crates;
    }

    static synchronized int weighed() {
        return weighed;
    }
}

class Crane {
    void lift() {
        CargoScale.weigh(1);
    }
}

class Office {
    int tons() {
        return CargoScale.weighed();
    }
}

class Customs {
    boolean due() {
        return CargoScale.weighed() > 100;
    }
}
