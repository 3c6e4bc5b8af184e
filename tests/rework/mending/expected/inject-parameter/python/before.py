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


def may_enter(draught, hour, tide_table=None):
    return (TideTable.table() if tide_table is None else tide_table).level(hour) > draught


def lowest(tide_table=None):
    table = (TideTable.table() if tide_table is None else tide_table)
    return min(table.level(0), table.level(1))


def main():
    print(may_enter(3, 1), lowest())


main()
