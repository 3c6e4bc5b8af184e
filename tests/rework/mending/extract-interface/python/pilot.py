from tides import TideTable


class Pilot:
    def __init__(self, tides: TideTable):
        self._tides = tides

    def may_enter(self, draught, day):
        self._tides.raise_by()
        return self._tides.height(day) > draught


def deep_enough(tides: TideTable, draught):
    return tides.height(0) > draught


if __name__ == "__main__":
    shared = TideTable()
    print(Pilot(shared).may_enter(3, 1) and deep_enough(shared, 4))
