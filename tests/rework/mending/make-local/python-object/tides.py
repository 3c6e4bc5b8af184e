"""The tides of the harbour."""


class TideTable:
    def __init__(self, first=4):
        self._first = first

    def height(self, day):
        return self._first + day

    def raise_by(self, by):
        self._first += by


table = TideTable(3)
