"""Names that other modules reach, however they are written."""
_table = {}  # entity: global-variable _table eager language
box = []  # entity: global-variable box eager language
_count = 0  # entity: global-variable _count eager language


class Desk:  # entity: singleton Desk eager language
    main: "Desk"
    kinds = {}  # entity: static-field kinds eager language
    window = None  # harmless: window

    def __init__(self, rows):
        for row in rows:
            self.kinds[row] = row

    def refresh(self):
        self.kinds = {}


Desk.main = Desk([])


class Base:
    _pool = {}  # entity: static-field _pool eager language

    def __init__(self, key):
        if key not in self._pool:
            self._pool[key] = {}
        self.__dict__ = self._pool[key]


class Settings(Base):  # entity: singleton Settings lazy none
    def __init__(self):
        Base.__init__(self, "Settings")
        self.width = 4


class Listed:
    def __init__(self):
        self.rows = list()


class Ledger(Listed):
    rows = None  # harmless: rows
    first = property(lambda self: self.rows[0])  # harmless: first

    def enter(self, row):
        self.rows.append(row)


class Mark:  # entity: singleton Mark lazy none
    """Each class that is asked keeps its own."""

    def __new__(cls):
        return cls._mark  # finding: single.may-return-nothing

    @classmethod
    def make(cls):
        made = object.__new__(cls)  # near: single.slot-shared-by-subclasses
        made.seen = 0
        cls._mark = made


class East(Mark):
    pass


East.make()
tables = None  # entity: global-variable tables elsewhere none
