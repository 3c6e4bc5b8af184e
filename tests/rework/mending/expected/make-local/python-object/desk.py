from tides import TideTable


class Desk:
    def __init__(self):
        self._tide_table = TideTable(3)
        self._entered = 0

    def enter(self, day):
        self._entered += 1
        self._tide_table.raise_by(1)
        return self._tide_table.height(day) + self._entered


if __name__ == "__main__":
    desk = Desk()
    print(desk.enter(1) + desk.enter(2))
