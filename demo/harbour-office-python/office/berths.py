"""Which ship lies at which berth."""


class BerthBook:
    def __init__(self):
        self._berths = {}

    def assign(self, berth, ship):
        if berth in self._berths:
            return False
        self._berths[berth] = ship
        return True

    def release(self, berth):
        return self._berths.pop(berth, None) is not None

    def ship_at(self, berth):
        return self._berths.get(berth, "")

    def occupied(self):
        return len(self._berths)


_book = None


def berth_book():
    global _book
    if _book is None:
        _book = BerthBook()
    return _book
