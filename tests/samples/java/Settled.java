import java.util.ArrayDeque;
import java.util.concurrent.Executors;

// Filled once under a lock that everybody passes; a volatile that is only replaced whole.
final class Watch {  // entity: static-holder Watch lazy lock
    private static ArrayDeque<Runnable> bells;  // harmless: bells
    private static ArrayDeque<Runnable> rounds;
    private static volatile String keeper = "nobody";

    private Watch() {
    }

    static void ring(Runnable bell) {
        synchronized (Watch.class) {
            if (bells == null) {
                bells = new ArrayDeque<>();
            }
        }
        System.out.println(bells.isEmpty());  // near: thread.mixed-guard
    }

    static void walk(Runnable round) {
        synchronized (Watch.class) {
            rounds = new ArrayDeque<>();
        }
        System.out.println(rounds.isEmpty());  // finding: thread.mixed-guard
    }

    static void relieve(String name) {
        synchronized (Watch.class) {
            keeper = name;
        }
    }

    static String keeper(Object desk) {
        synchronized (desk) {
            return keeper;  // near: thread.mixed-guard
        }
    }

    static void start() {
        for (int i = 0; i < 4; i++) {
            Executors.newCachedThreadPool().submit(() -> {
                ring(() -> {});
                walk(() -> {});
                relieve(keeper(Watch.class));
            });
        }
    }
}
