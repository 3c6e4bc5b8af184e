# It is there before anybody can ask.
class TideTable:
    def height(self, hour):
        return hour % 6


_table = TideTable()


def table():
    return _table


def depth():
    return table().height(3)
