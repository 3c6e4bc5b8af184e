package office;

/** Tugs, sent in order of their numbers. */
public class TugDispatch {
    private int sent;

    public String order(int berth) {
        String ship = BerthBook.get().shipAt(berth);
        if (ship.isEmpty()) {
            DutyLog.LOG.note("no tug needed");
            return "no tug";
        }
        sent++;
        return "tug " + sent + " for " + ship;
    }
}
