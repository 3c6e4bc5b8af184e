package office;

/** Walks the quays in a thread of its own. */
public class NightWatch {
    private Thread thread;

    public void start() {
        thread = new Thread(this::walk);
        thread.start();
    }

    private void walk() {
        if (PilotRoster.roster().strength() == 0) {
            DutyLog.LOG.note("no pilot on duty");
        }
        Tickets.take();
    }

    public void stop() throws InterruptedException {
        thread.join();
    }
}
