package office;

/** Receives ships, serves them and lets them go. */
public class HarbourMaster {
    private final String name;
    private final Quay north = new Quay("north", 1, 2);
    private final Quay south = new Quay("south", 3, 4);
    private final TugDispatch tugs = new TugDispatch();
    private final Departures departures = new Departures();

    public HarbourMaster(String name) {
        this.name = name;
    }

    public int receive(String ship) {
        int berth = north.moor(ship);
        Tickets.take();
        return berth < 0 ? south.moor(ship) : berth;
    }

    public String tug(int berth) {
        return tugs.order(berth);
    }

    public boolean dismiss(int berth) {
        return departures.clear(berth);
    }

    public String summary() {
        return name + ": " + BerthBook.get().occupied() + " berthed, " + departures.cleared() + " cleared";
    }
}
