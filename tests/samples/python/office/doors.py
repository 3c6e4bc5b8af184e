_current = None  # entity: shared-instance _current lazy none
_hooks = []  # entity: global-variable _hooks eager language
_quays = {}  # entity: registry _quays eager language


class Shift:
    def __init__(self, name):
        self.name = name


def current():
    return _current  # finding: single.may-return-nothing


def begin(name):
    global _current
    _current = Shift(name)


class Quay:
    def __init__(self):
        self.ships = 0


def quay(name):
    if name not in _quays:  # finding: thread.check-then-act
        _quays[name] = Quay()
    return _quays[name]


def on_arrival(hook):
    _hooks.append(hook)  # finding: lifetime.grows-forever


class Foghorn:  # entity: singleton Foghorn lazy none
    _horn = None

    def __new__(cls):
        if cls._horn is None:
            cls._horn = super().__new__(cls)  # finding: thread.unguarded-creation
        return cls._horn

    def __init__(self):
        self.blown = 0  # finding: single.reinitialised

    def blow(self):
        self.blown += 1


if __name__ == "__main__":
    horn = Foghorn()
    horn.blow()
