"""The tides of the harbour."""


class Tides:
    _first = 4

    @staticmethod
    def height(day):
        return Tides._first + day

    @classmethod
    def raise_by(cls, by=1):
        cls._first += by

    @staticmethod
    def forget():
        Tides._first = 0


class TidesWrapper:
    def height(self, day):
        return Tides.height(day)

    def raise_by(self, by=1):
        return Tides.raise_by(by)
