from tides import Tides


class Pilot:
    def __init__(self, name):
        self._name = name

    def may_enter(self, draught, day):
        Tides.raise_by()
        return Tides.height(day) > draught and self._name != ""


if __name__ == "__main__":
    print(Pilot("first").may_enter(3, 1))
