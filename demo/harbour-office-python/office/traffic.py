"""Ships that come and go."""
from office.berths import berth_book
from office.duty import log
from office.quay import Quay, TugDispatch
from office.tickets import take_ticket


class Departures:
    """Clears ships for sea."""

    def __init__(self):
        self.cleared = 0

    def clear(self, berth):
        book = berth_book()
        ship = book.ship_at(berth)
        if not ship:
            return False
        book.release(berth)
        self.cleared += 1
        log.note(ship + " cleared")
        return True


class HarbourMaster:
    """Receives ships, serves them and lets them go."""

    def __init__(self, name):
        self._name = name
        self._north = Quay("north", 1, 2)
        self._south = Quay("south", 3)
        self._tugs = TugDispatch()
        self._departures = Departures()

    def receive(self, ship):
        take_ticket()
        berth = self._north.moor(ship)
        return self._south.moor(ship) if berth < 0 else berth

    def tug(self, berth):
        return self._tugs.order(berth)

    def dismiss(self, berth):
        return self._departures.clear(berth)

    def summary(self):
        return "%s: %d berthed, %d cleared" % (self._name, berth_book().occupied(), self._departures.cleared)
