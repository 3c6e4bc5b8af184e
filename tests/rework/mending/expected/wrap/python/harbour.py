from tides import Tides, TidesWrapper


class Pilot:
    def __init__(self, name, *, tides_wrapper=None):
        self._tides_wrapper = TidesWrapper() if tides_wrapper is None else tides_wrapper
        self._name = name

    def may_enter(self, draught, day):
        self._tides_wrapper.raise_by()
        return self._tides_wrapper.height(day) > draught and self._name != ""


if __name__ == "__main__":
    print(Pilot("first").may_enter(3, 1))
