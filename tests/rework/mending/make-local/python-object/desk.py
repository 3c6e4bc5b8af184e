from tides import table


class Desk:
    def __init__(self):
        self._entered = 0

    def enter(self, day):
        self._entered += 1
        table.raise_by(1)
        return table.height(day) + self._entered


if __name__ == "__main__":
    desk = Desk()
    print(desk.enter(1) + desk.enter(2))
