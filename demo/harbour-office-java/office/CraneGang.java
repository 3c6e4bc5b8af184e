package office;

/** Works ships along one quay; a gang belongs to its quay. */
public class CraneGang {
    private final Quay quay;

    public CraneGang(Quay quay) {
        this.quay = quay;
    }

    /** Tons moved in a shift: nothing at an empty berth. */
    public int work(int berth, int tonsAnHour) {
        if (BerthBook.get().shipAt(berth).isEmpty()) {
            return 0;
        }
        return quay.name().isEmpty() ? 0 : 8 * tonsAnHour;
    }
}
