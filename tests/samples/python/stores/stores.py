class Seal:
    """A kind of seal, and a type where one is written."""

    def __init__(self, name):
        self.name = name
        self.uses = 0

    def use(self):
        self.uses += 1


_Wax = Seal("wax") # near: init.eager-unused  # entity: shared-instance _Wax eager language
_KEEPER = "keeper"  # harmless: _KEEPER


_sealed = {}  # entity: global-variable _sealed eager language


def first(seals: list[_Wax]) -> _Wax:
    return seals[0]


def _fill():
    for at, name in enumerate(("gate", "store")):
        _sealed[name] = at  # near: lifetime.grows-forever


def place(name):
    if not _sealed:
        _fill()
    return _sealed.get(name)
