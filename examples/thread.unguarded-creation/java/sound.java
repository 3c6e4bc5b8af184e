// A nested class is initialised once, when it is first named.
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;

final class TideTable {
    static final AtomicInteger MADE = new AtomicInteger();

    private static final class Holder {
        static final TideTable TABLE = new TideTable();
    }

    private TideTable() {
        pause();  // works out the year's tides
        MADE.incrementAndGet();
    }

    static TideTable table() {
        return Holder.TABLE;
    }

    private static void pause() {
        try {
            Thread.sleep(20);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}

class Main {
    public static void main(String[] arguments) throws InterruptedException {
        List<Thread> pilots = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            pilots.add(new Thread(() -> TideTable.table()));
        }
        for (Thread pilot : pilots) {
            pilot.start();
        }
        for (Thread pilot : pilots) {
            pilot.join();
        }
        System.out.println(TideTable.MADE.get() + " made");
        System.exit(TideTable.MADE.get() == 1 ? 0 : 1);
    }
}
