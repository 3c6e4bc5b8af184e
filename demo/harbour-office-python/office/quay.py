"""Quays, and who works along them."""
from office.berths import berth_book
from office.duty import log


class Quay:
    """A stretch of berths under one name."""

    def __init__(self, name, first, length=4):
        self.name = name
        self._first = first
        self._length = length

    def moor(self, ship):
        """The berth given to the ship, or -1 when the quay is full."""
        for berth in range(self._first, self._first + self._length):
            if not berth_book().ship_at(berth):
                berth_book().assign(berth, ship)
                log.note(ship + " moored at " + self.name)
                return berth
        return -1

    def leave(self, berth):
        return berth_book().release(berth)


class CraneGang:
    """Works ships along one quay."""

    def __init__(self, quay):
        self._quay = quay

    def work(self, berth, tons_an_hour):
        """Tons moved in a shift: nothing at an empty berth."""
        if not berth_book().ship_at(berth):
            return 0
        return 8 * tons_an_hour if self._quay.name else 0


class TugDispatch:
    """Tugs, sent in order of their numbers."""

    def __init__(self):
        self._sent = 0

    def order(self, berth):
        ship = berth_book().ship_at(berth)
        if not ship:
            log.note("no tug needed")
            return "no tug"
        self._sent += 1
        return "tug %d for %s" % (self._sent, ship)
