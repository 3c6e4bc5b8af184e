"""The tides of the harbour."""


class TideTable:
    """The water's height, day by day."""

    def __init__(self, first: int = 4):
        self._first = first

    def height(self, day: int) -> int:
        return self._first + day

    def raise_by(self, by: int = 1):
        self._first += by

    def forget(self):
        self._first = 0
