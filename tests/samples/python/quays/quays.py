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


# One slot for a family of classes.
class Berth:  # entity: singleton Berth lazy none
    _berth = None

    def __init__(self):  # finding: single.open-constructor
        self.ships = 0

    @classmethod
    def berth(cls):
        if Berth._berth is None:
            Berth._berth = cls()  # finding: single.slot-shared-by-subclasses thread.unguarded-creation
        return Berth._berth

class DeepBerth(Berth):


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


# Others run while it is made.
class Radio:
    def __init__(self):
        self.channel = 16

# Each needs the other while it is made.
class Light:  # entity: singleton Light lazy none
    _light = None

    def __init__(self):  # finding: single.open-constructor
        self.height = Mole.mole().length  # finding: coupling.cycle coupling.hidden-dependency

    @classmethod
    def light(cls):
        if cls._light is None:
            cls._light = Light()  # finding: init.cycle thread.unguarded-creation
        return cls._light


class Mole:  # entity: singleton Mole lazy none
    _mole = None

    def __init__(self):  # finding: single.open-constructor
        self.length = Light.light().height  # finding: coupling.cycle coupling.hidden-dependency

    @classmethod
    def mole(cls):
        if cls._mole is None:
            cls._mole = Mole()  # finding: thread.unguarded-creation
        return cls._mole


# A lock for each look, fetched in a loop.
class Tariff:  # entity: singleton Tariff lazy lock
    _tariff = None
    _lock = threading.Lock()  # harmless: _lock

    def __init__(self):  # finding: single.open-constructor
        self.rows = [f"row {row}" for row in range(3)]

    @classmethod
    def tariff(cls):
        with cls._lock:  # finding: thread.lock-every-access
            if cls._tariff is None:
                cls._tariff = Tariff()
            return cls._tariff

    def drop(self, row):
        with self._lock:
            self.rows.remove(row)


class Cashier:
    def month(self):
        for _ in range(30):
            Tariff.tariff().drop("row 1")  # finding: coupling.hidden-dependency


# Opens what nothing closes.
class EchoLog:
    def __init__(self):
        self.file = None
        self.lines = 0

    def begin(self):
        self.file = open("echoes")  # finding: lifetime.never-released

echo_log = EchoLog()  # entity: shared-instance echo_log eager language


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


# Knows who uses it.
class Plan:
    def __init__(self):
        self.berths = 0

    def change(self, berther: "Berther"):
        self.berths = self.berths + 1
        berther.stop()  # finding: coupling.cycle


plan = Plan()  # entity: shared-instance plan eager language


class Berther:
    def __init__(self):
        self.free = 0

    def arrive(self):
        self.free = plan.berths  # finding: coupling.hidden-dependency

    def stop(self):
        self.free = 0


# Passed through three functions that do nothing with it.
class Permit:
    def valid(self):
        return True


def check(permit: Permit):
    return permit.valid()


# Reached from everywhere; near miss: four classes.
class Siren:
    def __init__(self):
        self.sounded = 0

class Bell:
    def __init__(self):
        self.rung = 0

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
