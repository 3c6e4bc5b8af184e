package atload;

public final class Ledger {
    private final java.util.concurrent.ConcurrentLinkedQueue<String> rows = new java.util.concurrent.ConcurrentLinkedQueue<>();

    static Ledger open() {
        return new Ledger();
    }

    void note(String row) {
        rows.add(row);
    }
}
