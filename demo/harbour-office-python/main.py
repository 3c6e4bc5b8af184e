"""A day at the harbour office: its output shows that nothing changed."""
from office import tickets
from office.duty import NightWatch, roster
from office.mast import FogHorn, Lantern, mast
from office.traffic import HarbourMaster


def main():
    master = HarbourMaster("harbour master")
    lantern = Lantern()
    horn = FogHorn()
    roster.sign_on("pilot one")
    watch = NightWatch()
    watch.start()
    for ship in ("Gannet", "Petrel", "Fulmar"):
        print(ship, "at berth", master.receive(ship))
    watch.stop()
    print(master.tug(1), master.tug(9), sep=", ")
    master.dismiss(2)
    print(mast.hoist("night"), "keepers, lantern", "lit" if lantern.lit else "dark")
    mast.hoist("fog")
    print("horn", horn.blasts)
    horn.close()
    lantern.close()
    print(tickets.next_ticket, "tickets,", roster.on_duty, "pilots")
    print(master.summary())


if __name__ == "__main__":
    main()
