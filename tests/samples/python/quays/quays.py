from ledgers.dues import dues


# One is handed out, another is made beside it.
class Beacon:  # entity: singleton Beacon lazy none
    _beacon = None

    def __init__(self):  # finding: single.open-constructor
        self.flashes = 0

    @classmethod
    def beacon(cls):
        if cls._beacon is None:
            cls._beacon = Beacon()  # finding: thread.unguarded-creation
        return cls._beacon

    def flash(self):
        self.flashes = self.flashes + 1  # finding: thread.lost-update


class Pier:
    def light(self):
        Beacon.beacon().flash()  # finding: coupling.hidden-dependency


# Another takes its place.
class Foghorn:
    def __init__(self):
        self.blown = 0


class LoudHorn(Foghorn):
    pass


_horn = None  # entity: shared-instance _horn lazy none


def horn():
    global _horn
    if _horn is None:
        _horn = Foghorn()  # finding: thread.unguarded-creation
    return _horn


def replace_horn(other):
    global _horn
    _horn = other  # finding: single.replaceable


# Only the first caller's name counts.
class Plate:  # entity: singleton Plate lazy none
    _plate = None

    def __init__(self, name):  # finding: single.open-constructor
        self.name = name

    @classmethod
    def plate(cls, name):  # finding: init.arguments-ignored
        if cls._plate is None:
            cls._plate = Plate(name)  # finding: thread.unguarded-creation
        return cls._plate

    def rename(self, name):
        self.name = name


# Near miss: kept by name.
class Buoy:
    _buoys = {}  # entity: registry _buoys eager language

    def __init__(self, name):
        self.name = name

    @classmethod
    def buoy(cls, name):  # near: init.arguments-ignored
        if name not in cls._buoys:  # finding: thread.check-then-act
            cls._buoys[name] = Buoy(name)
        return cls._buoys[name]


# Keeps what is made for one visit.
class Gate:
    def __init__(self):
        self.visit = None
        self.last = ""

    def begin(self, visit):
        self.visit = visit

    def note(self, ship):
        self.last = ship


gate = Gate()  # entity: shared-instance gate eager language


class Visit:
    def __init__(self, ship):
        self.ship = ship

    def enter(self):
        gate.begin(self)  # finding: lifetime.captured-short-lived coupling.hidden-dependency
        gate.note(self.ship)  # near: lifetime.captured-short-lived


class Watchman:
    def greet(self, ship):
        visit = Visit(ship)
        visit.enter()


# Passed through three functions that do nothing with it.
class Permit:
    def valid(self):
        return True


def check(permit: Permit):
    return permit.valid()


def main():
    second = Beacon()  # finding: single.second-creation
    second.flash()
    Plate.plate("north").rename("N")
    Plate.plate("south").rename("S")
    Buoy.buoy("one")
    replace_horn(LoudHorn())
    threading.Thread(target=Watchman().greet, args=("Heron",)).start()
    threading.Thread(target=Pier().light).start()
    dues.enter(2)
