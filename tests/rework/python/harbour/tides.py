"""The tides of the day."""


class TideTable:
    _table = None

    def __init__(self):
        self.asked = 0

    @classmethod
    def table(cls):
        if cls._table is None:
            cls._table = cls()
        return cls._table

    def height(self, hour):
        self.asked += 1
        return 3 + hour % 6
