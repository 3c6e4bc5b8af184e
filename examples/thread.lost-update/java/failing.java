// Reading, adding and writing back are three steps: two at once count as one.
final class CargoScale {
    private static final CargoScale SCALE = new CargoScale();
    private volatile int weighed;

    private CargoScale() {
    }

    static CargoScale scale() {
        return SCALE;
    }

    void weigh() {
        int before = weighed;
        Thread.yield();  // the crate swings in
        weighed = before + 1;
    }

    int weighed() {
        return weighed;
    }
}

class Main {
    public static void main(String[] arguments) throws InterruptedException {
        Thread[] cranes = new Thread[4];
        for (int i = 0; i < cranes.length; i++) {
            cranes[i] = new Thread(() -> {
                for (int crate = 0; crate < 20000; crate++) {
                    CargoScale.scale().weigh();
                }
            });
            cranes[i].start();
        }
        for (Thread crane : cranes) {
            crane.join();
        }
        System.out.println(CargoScale.scale().weighed() + " of 80000 weighed");
        System.exit(CargoScale.scale().weighed() == 80000 ? 0 : 1);
    }
}
