// What is read as a reference that is only replaced whole, and a lock that a local stands for.
import java.util.ArrayList;
import java.util.List;

class LedgerStore {
  private static LedgerStore store;  // entity: ambient store elsewhere none
  private static final Object swap = new Object();  // harmless: swap
  private final List<String> rows = new ArrayList<>();

  static void open(LedgerStore next) {
    synchronized (swap) {
      store = next;
    }
  }

  static void close() {
    LedgerStore old = store;  // finding: thread.mixed-guard
    if (old == null) return;
    synchronized (old) {
      old.rows.clear();
    }
    synchronized (swap) {
      store = null;
    }
  }

  static LedgerStore get() {
    return store;
  }

  synchronized void add(String row) {
    rows.add(row);  // near: thread.mixed-guard
  }
}

/** What a caller sees of a single instance of a rate. */
class RateView {  // near: single.meant-single
  final int rate;

  RateView(int rate) {
    this.rate = rate;
  }
}

class LedgerWorks {
  RateView begin() {
    LedgerStore.open(new LedgerStore());
    for (int i = 0; i < 3; ++i) {
      new Thread(() -> {
        LedgerStore.get().add("row");
        LedgerStore.close();
        LedgerStore.open(new LedgerStore());
      }).start();
    }
    return new RateView(new RateView(2).rate);
  }
}
