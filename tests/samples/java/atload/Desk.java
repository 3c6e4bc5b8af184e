package atload;

/** What is filled while the class is loaded, by what also looks whether it is there. */
public class Desk {  // entity: static-holder Desk eager language
    private static Ledger ledger = openLedger();
    private static java.util.Map<String, String> rows = new java.util.HashMap<>();
    private static String title = "desk";

    public static synchronized Ledger openLedger() {
        if (ledger == null) {
            ledger = Ledger.open();
        }
        return ledger;
    }

    public static void note(String row) {
        ledger.note(row);
    }

    public static synchronized void keep(String row) {
        rows.put(row, title);
        title = row;
    }

    public static String first() {
        return title + rows.get("first");  // finding: thread.mixed-guard
    }

    public static void main(String[] arguments) {
        new Thread(() -> keep("one")).start();
        note("two");
        System.out.println(first());
    }
}
