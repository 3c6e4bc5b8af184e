package tests;

import office.BerthBook;
import office.CraneGang;
import office.Departures;
import office.FogHorn;
import office.HarbourMaster;
import office.NightWatch;
import office.Quay;
import office.SignalMast;
import office.Tickets;
import office.TugDispatch;

/** Each line of its output tells of one test, in the form of the Test Anything Protocol. */
public final class OfficeTest {
    private static int number;
    private static boolean failed;

    private OfficeTest() {
    }

    private static void check(String what, boolean holds) {
        number++;
        failed |= !holds;
        System.out.println((holds ? "ok " : "not ok ") + number + " - " + what);
    }

    private static void emptyBook() {
        for (int berth = 0; berth < 100; berth++) {
            BerthBook.get().release(berth);
        }
    }

    public static void main(String[] arguments) throws InterruptedException {
        emptyBook();
        Quay quay = new Quay("north", 1, 2);
        check("a ship gets the first free berth", quay.moor("Tern") == 1 && quay.moor("Skua") == 2);
        check("a full quay says so", quay.moor("Gull") == -1);
        check("a crane works a ship", new CraneGang(quay).work(1, 30) == 240);
        check("a crane does nothing at an empty berth", new CraneGang(quay).work(7, 30) == 0);
        check("a tug comes for a ship", new TugDispatch().order(1).equals("tug 1 for Tern"));
        check("no tug comes for nobody", new TugDispatch().order(8).equals("no tug"));
        check("a ship is cleared once", new Departures().clear(2) && !new Departures().clear(2));
        check("a berth is free again", quay.leave(1) && quay.moor("Auk") == 1);
        emptyBook();
        HarbourMaster master = new HarbourMaster("master");
        master.receive("Tern");
        check("the master counts", master.summary().equals("master: 1 berthed, 0 cleared"));
        FogHorn horn = new FogHorn();
        SignalMast.mast().hoist("fog");
        horn.close();
        SignalMast.mast().hoist("fog");
        check("a horn that has gone is silent", horn.blasts() == 1);
        NightWatch watch = new NightWatch();
        watch.start();
        watch.stop();
        check("the night watch takes a ticket", Tickets.taken() > 0);
        emptyBook();
        System.out.println("1.." + number);
        System.exit(failed ? 1 : 0);
    }
}
