package office;

/** The number of the next ticket, shared by all windows. */
public final class Tickets {
    private static int next;

    private Tickets() {
    }

    public static int take() {
        return ++next;
    }

    public static int taken() {
        return next;
    }
}
