# Who comes before the opening is handed None.
class TideTable:
    _table = None

    @classmethod
    def open(cls):
        cls._table = cls()

    @classmethod
    def table(cls):
        return cls._table

    def height(self, hour):
        return hour % 6


def depth():
    return TideTable.table().height(3)
