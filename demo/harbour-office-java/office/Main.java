package office;

/** A day at the harbour office: its output shows that nothing changed. */
public final class Main {
    private Main() {
    }

    public static void main(String[] arguments) throws InterruptedException {
        HarbourMaster master = new HarbourMaster("harbour master");
        try (Lantern lantern = new Lantern(); FogHorn horn = new FogHorn()) {
            PilotRoster.roster().signOn("pilot one");
            NightWatch watch = new NightWatch();
            watch.start();
            for (String ship : new String[] {"Gannet", "Petrel", "Fulmar"}) {
                System.out.println(ship + " at berth " + master.receive(ship));
            }
            watch.stop();
            System.out.println(master.tug(1) + ", " + master.tug(9));
            master.dismiss(2);
            System.out.println(SignalMast.mast().hoist("night") + " keepers, lantern " + (lantern.lit() ? "lit" : "dark"));
            SignalMast.mast().hoist("fog");
            System.out.println("horn " + horn.blasts());
        }
        System.out.println("weighed " + CargoScale.weighAll(new int[] {120, 340}) + " kg, " + Tickets.taken() + " tickets");
        System.out.println(master.summary());
    }
}
