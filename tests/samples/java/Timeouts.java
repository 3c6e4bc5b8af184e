import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

// What the start of a task gives back can only be kept afterwards; what is set on another way is not late.
final class Mooring implements Runnable {
    private final ScheduledExecutorService clock = Executors.newScheduledThreadPool(1);
    private final Future<?> timeout;
    private boolean fast;

    Mooring(long delay) {
        if (delay > 0) {
            this.timeout = clock.schedule(this, delay, TimeUnit.SECONDS);  // near: thread.escaping-this
        } else {
            this.timeout = null;
        }
    }

    Mooring() {
        this.timeout = clock.schedule(this, 4, TimeUnit.SECONDS);  // finding: thread.escaping-this
        this.fast = true;
    }

    public void run() {
        System.out.println(fast);
    }
}
