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
