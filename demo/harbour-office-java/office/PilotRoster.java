package office;

/** The pilots on duty. */
public class PilotRoster {
    private static PilotRoster roster;

    private int onDuty;

    public static PilotRoster roster() {
        if (roster == null) {
            synchronized (PilotRoster.class) {
                if (roster == null) {
                    roster = new PilotRoster();
                }
            }
        }
        return roster;
    }

    public void signOn(String pilot) {
        onDuty++;
        DutyLog.LOG.note(pilot + " signs on");
    }

    public int strength() {
        return onDuty;
    }
}
