from ledgers.fees import fees
from ledgers.fees import twice
import os
import sys
import threading


# There is only one, and the class sees to it.
class Anchor:  # near: single.meant-single  # entity: singleton Anchor lazy lock
    _anchor = None
    _lock = threading.Lock()  # harmless: _lock

    def __init__(self):  # near: single.open-constructor
        if Anchor._anchor is not None:
            raise RuntimeError("the anchor is there")
        self.chain = 0
        self.rows = [str(row) for row in range(4)]

    @classmethod
    def anchor(cls):
        with cls._lock:  # near: thread.wrong-lock thread.lock-every-access init.lazy-needless
            if cls._anchor is None:
                cls._anchor = Anchor()  # near: thread.unguarded-creation single.second-creation
            return cls._anchor

    def lower(self):
        with self._lock:
            self.chain += 1  # near: thread.lost-update thread.unguarded-state thread.mixed-guard


class Boatswain:
    def __init__(self, anchor):  # near: coupling.hidden-dependency coupling.fixed-collaborator
        self.own = anchor
        self.notes = []  # near: coupling.fixed-collaborator

    def moor(self):
        self.own.lower()  # near: coupling.hidden-dependency


# One is handed out, and a helper makes another.
class Capstan:  # entity: singleton Capstan lazy none
    _capstan = None

    def __init__(self):  # finding: single.open-constructor
        self.turns = 0

    @classmethod
    def capstan(cls):
        if cls._capstan is None:
            cls._capstan = Capstan()
        return cls._capstan

    def turn(self):
        self.turns = 1


def spare_capstan():
    return Capstan()  # finding: single.second-creation


# Put in another's place by whoever holds the module.
class Flare:
    def __init__(self):
        self.lit = 0

    def light(self):
        self.lit = 1


class Rocket(Flare):
    pass


_flare = None  # entity: shared-instance _flare lazy none


def flare():
    global _flare
    if _flare is None:
        _flare = Flare()
    return _flare


def use_rockets():
    global _flare
    _flare = Rocket()  # finding: single.replaceable


# Near misses: never set again, or set before anybody can have it.
_torch = Flare()  # near: single.replaceable init.eager-heavy  # entity: shared-instance _torch eager language  # finding: init.eager-unused


def torch():
    return _torch  # near: single.may-return-nothing


_lamp = None  # entity: shared-instance _lamp lazy double-check
_lamp_lock = threading.Lock()  # harmless: _lamp_lock


def lamp():
    global _lamp
    if _lamp is None:
        with _lamp_lock:
            if _lamp is None:  # near: thread.double-check-incomplete
                _lamp = Flare()  # near: single.replaceable
    return _lamp


# Tested before the lock only.
_wick = None  # entity: shared-instance _wick lazy double-check-unsound
_wick_lock = threading.Lock()  # harmless: _wick_lock


def wick():
    global _wick
    if _wick is None:  # finding: thread.double-check-incomplete
        with _wick_lock:
            _wick = Flare()
    return _wick


# A lock in each call.
_fuse = None  # entity: shared-instance _fuse lazy lock


def fuse():
    global _fuse
    lock = threading.Lock()
    with lock:  # finding: thread.wrong-lock
        if _fuse is None:
            _fuse = Flare()
    return _fuse


class Davit:
    def __init__(self):  # near: init.cycle init.reentrant init.reads-environment
        self.boats = 0

    def lower(self):
        tackle.pull()  # near: coupling.cycle
        self.boats = 1


class Tackle:
    def __init__(self):  # near: init.cycle init.reentrant init.may-throw
        self.blocks = 2

    def pull(self):  # near: coupling.cycle
        self.blocks = 3


davit = Davit()  # entity: shared-instance davit eager language
tackle = Tackle()  # near: init.may-throw init.eager-heavy init.order-within-class  # entity: shared-instance tackle eager language


# Reads the environment while it is made; near misses: asked later, or handed in.
class Flags:
    def __init__(self):
        self.home = os.getenv("HARBOUR")  # finding: init.reads-environment

    def rename(self, name):
        self.home = name


flags = Flags()  # entity: shared-instance flags eager language


class Pennants:
    def __init__(self, home):
        self.home = home

    def reload(self):
        self.home = os.getenv("HARBOUR")  # near: init.reads-environment


pennants = Pennants("pier")  # entity: shared-instance pennants eager language


# Works only after it was set up; near miss: sees to it itself.
class Locks:
    def __init__(self):
        self.gauge = None
        self.level = 0

    def set_up(self, gauge):
        self.gauge = gauge

    def fill(self):
        self.level = self.gauge.read()


class Basin:
    def __init__(self):
        self.gauge = None
        self.level = 0

    def set_up(self, gauge):
        self.gauge = gauge

    def fill(self):  # near: init.needs-setup
        if self.gauge is None:
            raise RuntimeError("no gauge")
        self.level = self.gauge.read()

    def empty(self):  # near: init.needs-setup
        self.level = 0 if self.gauge is None else self.gauge.read()


class Gauge:
    def read(self):
        return 3


locks = Locks()  # entity: shared-instance locks eager language
basin = Basin()  # entity: shared-instance basin eager language


def flood(deep):
    locks.fill()  # finding: init.needs-setup
    if deep:
        locks.set_up(Gauge())
    basin.set_up(Gauge())
    basin.fill()
    basin.empty()


# A lock for each look, in a loop.
class Ropes:  # entity: singleton Ropes lazy lock
    _ropes = None
    _lock = threading.Lock()  # harmless: _lock

    def __init__(self):  # finding: single.open-constructor
        self.coils = [str(coil) for coil in range(4)]

    @classmethod
    def ropes(cls):
        with cls._lock:  # finding: thread.lock-every-access
            if cls._ropes is None:
                cls._ropes = Ropes()
            return cls._ropes

    def cut(self, coil):
        with self._lock:
            self.coils.remove(coil)


class Rigger:
    def week(self):
        day = 0
        while day < 7:
            Ropes.ropes().cut("1")
            day += 1
        anchor = Anchor.anchor()  # near: coupling.hidden-dependency
        for _ in range(7):
            anchor.lower()


# Fields that two threads set; near miss: handed over by a queue or under a lock.
class Signals:
    def __init__(self):
        self.shown = ""
        self.last = ""
        self.kept = []
        self._lock = threading.Lock()

    def show(self, flag):
        self.shown = flag

    def keep(self, flag):
        with self._lock:
            self.last = flag  # near: thread.unguarded-state
            self.kept.append(flag)

    def forget(self):
        self.kept.clear()  # finding: thread.mixed-guard

    def all(self):
        with self._lock:
            return self.kept  # finding: thread.leaks-internals

    def some(self):
        with self._lock:
            return tuple(self.kept)  # near: thread.leaks-internals


signals = Signals()  # entity: shared-instance signals eager language


def show_all():
    threading.Thread(target=signals.show, args=("A",)).start()
    threading.Thread(target=signals.show, args=("B",)).start()
    threading.Thread(target=signals.keep, args=("C",)).start()
    threading.Thread(target=signals.forget).start()
    signals.show("D")
    print(signals.all(), signals.some())


# Hands itself to a thread before it is complete; near miss: started by another method.
class Sounder:
    def __init__(self):
        self.thread = threading.Thread(target=self.turn)
        self.thread.start()  # finding: thread.escaping-this
        self.depth = 0

    def turn(self):
        self.depth = 1


class Listener:
    def __init__(self):
        self.heard = 0
        self.thread = threading.Thread(target=self.turn)

    def start(self):
        self.thread.start()  # near: thread.escaping-this

    def turn(self):
        self.heard = 1


class Lookouts:
    def __init__(self, count):
        self.watchers = []
        self.ready = True
        for _ in range(count):
            watcher = threading.Thread(target=self.look)
            self.watchers.append(watcher)
            watcher.start()  # near: thread.escaping-this

    def look(self):
        return self.ready


# Opens what nothing closes; near miss: in a with of its own.
class Soundings:
    def __init__(self):
        self.source = None
        self.read = ""

    def open(self, name):
        self.source = open(name)  # finding: lifetime.never-released

    def first(self, name):
        with open(name) as one:  # near: lifetime.never-released
            return one.readline()


soundings = Soundings()  # entity: shared-instance soundings eager language


# Keeps the caller's object; near miss: only what it says.
class Porter:
    def __init__(self):
        self.caller = None
        self.last = ""

    def keep(self, caller):
        self.caller = caller

    def note(self, caller):
        self.last = caller.ship


porter = Porter()  # entity: shared-instance porter eager language


class Caller:
    def __init__(self, ship):
        self.ship = ship

    def enter(self):
        porter.keep(self)  # finding: lifetime.captured-short-lived

    def pass_by(self):
        porter.note(self)  # near: lifetime.captured-short-lived


def receive(ship):
    caller = Caller(ship)
    caller.enter()
    caller.pass_by()


# Used after its end; near misses: opened again, or used before.
class Sluice:
    def __init__(self):
        self.is_open = True
        self.level = 0

    def close(self):
        self.is_open = False

    def open(self):
        self.is_open = True

    def measure(self):
        self.level += 1
        return self.level


sluice = Sluice()  # entity: shared-instance sluice eager language


def day():
    sluice.close()
    sluice.open()
    level = sluice.measure()  # near: lifetime.used-after-teardown
    level += sluice.measure()  # near: lifetime.used-after-teardown
    sluice.close()
    return level


class Knots:  # near: coupling.static-only-api
    @staticmethod
    def bowline(turns):
        return turns + 1


# Passed on by four; near misses: used on the way, or made there.
class Papers:
    def in_order(self):
        return True


def stamp(papers: Papers):
    return papers.in_order()


# One reached through another; near misses: a part of the object, and the other one asked directly.
class Buoys:
    def __init__(self):
        self.lit = 0

    def light(self):
        self.lit = 1


buoys = Buoys()  # entity: shared-instance buoys eager language


class Pilot:

    def dark(self):
        buoys.light()  # near: coupling.chained-access


# Reached from seven places; near miss: two.
class Gong:
    def __init__(self):
        self.struck = 0

    def strike(self):
        self.struck = 1


gong = Gong()  # entity: shared-instance gong eager language
whistle = Gong()  # near: coupling.wide-reach  # entity: shared-instance whistle eager language


class Pier1:
    def fog(self):
        gong.strike()
        whistle.strike()


# Begins the day for all; near miss: what is handed in is no reach.
class Morning:
    def begin(self):  # finding: coupling.crowded-startup
        gong.strike()
        whistle.strike()
        buoys.light()
        soundings.open("morning")
        davit.lower()
        flags.rename("morning")
        pennants.reload()


# Only the first one's name counts; near miss: it counts each time.
class Plate:  # entity: singleton Plate lazy none
    _plate = None

    def __init__(self, name, size):  # finding: single.open-constructor
        self.name = name
        self.size = size

    @classmethod
    def plate(cls, name, size):  # finding: init.arguments-ignored
        if cls._plate is None:
            cls._plate = Plate(name, size)
        return cls._plate

    def rename(self, name):
        self.name = name


class Sign:  # entity: singleton Sign lazy none
    _sign = None

    def __init__(self, name):  # finding: single.open-constructor
        self.name = name

    @classmethod
    def sign(cls, name):  # near: init.arguments-ignored
        if cls._sign is None:
            cls._sign = Sign(name)
        cls._sign.rename(name)
        return cls._sign

    def rename(self, name):
        self.name = name


# One slot for each of a family.
class Raft:
    _rafts = {}  # entity: registry _rafts eager language

    def __init__(self):
        self.logs = 4

    @classmethod
    def raft(cls):
        if cls not in cls._rafts:
            cls._rafts[cls] = cls()  # near: single.slot-shared-by-subclasses
        return cls._rafts[cls]

    def sink(self):
        self.logs = 0


class WideRaft(Raft):
    pass


# Made once by what overrides the making; near misses: made ready there, or only the first time.
class Dinghy:  # entity: singleton Dinghy lazy none
    _dinghy = None

    def __new__(cls):
        if cls._dinghy is None:
            cls._dinghy = super().__new__(cls)
            cls._dinghy.oars = 2  # near: single.reinitialised
        return cls._dinghy

    def row(self):
        self.oars = 1


class Canoe:  # entity: singleton Canoe lazy none
    _canoe = None

    def __new__(cls):
        if cls._canoe is None:
            cls._canoe = super().__new__(cls)
        return cls._canoe

    def __init__(self):
        if not hasattr(self, "paddles"):
            self.paddles = 2  # near: single.reinitialised

    def row(self):
        self.paddles = 1


# A look and a change under one lock, and a change that the table makes by itself.
_slips = {}  # entity: global-variable _slips eager language
_slips_lock = threading.Lock()  # harmless: _slips_lock


def take_slip(name):
    with _slips_lock:
        if name not in _slips:  # near: thread.check-then-act
            _slips[name] = name


def give_slip(name):
    _slips.pop(name, None)  # near: thread.check-then-act  # finding: thread.mixed-guard


def main():  # finding: coupling.crowded-startup
    threading.Thread(target=Rigger().week).start()
    threading.Thread(target=Boatswain(Anchor.anchor()).moor).start()
    threading.Thread(target=wick).start()
    threading.Thread(target=fuse).start()
    threading.Thread(target=take_slip, args=("a",)).start()
    give_slip("a")
    Capstan.capstan().turn()
    spare_capstan().turn()
    flare().light()
    use_rockets()
    Plate.plate("a", 1).rename("b")
    Plate.plate("c", 2)
    Sign.sign("a")
    WideRaft.raft().sink()
    Raft.raft().sink()
    Dinghy().row()
    Canoe().row()
    show_all()
    receive("Heron")
    Sounder()
    Listener().start()
    Morning().begin()
    fees.enter(twice(fees))
    flood(len(sys.argv) > 1)
