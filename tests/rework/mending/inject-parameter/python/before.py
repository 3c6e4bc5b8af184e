"""Tides of the harbour."""


class TideTable:
    _table = None

    def __init__(self):
        self.levels = [3, 5, 4]

    @classmethod
    def table(cls):
        if cls._table is None:
            cls._table = TideTable()
        return cls._table

    def level(self, hour):
        return self.levels[hour % 3]


def may_enter(draught, hour):
    return TideTable.table().level(hour) > draught


def lowest():
    table = TideTable.table()
    return min(table.level(0), table.level(1))


def main():
    print(may_enter(3, 1), lowest())


main()
