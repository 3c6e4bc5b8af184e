# Guards, starts, lists and ties of a harbour on duty.
import os
import threading

# Guarded when it is written, not when it is read.
class TideBoard:
    def __init__(self):
        self._lock = threading.Lock()
        self.level = 0
        self.notes = []

    def set(self, level):
        with self._lock:
            self.level = level

    def read(self):
        return self.level  # finding: thread.mixed-guard

    def note(self, text):
        with self._lock:
            self.notes.append(text)

    def clear(self):
        with self._lock:
            self.notes.clear()

    # The list itself leaves from under its lock.
    def all_notes(self):
        with self._lock:
            return self.notes  # finding: thread.leaks-internals

    # Near miss: a copy.
    def copied(self):
        with self._lock:
            return list(self.notes)  # near: thread.leaks-internals


board = TideBoard()  # entity: shared-instance board eager language

# A look and a change, in two steps.
taken = {}  # entity: global-variable taken eager language
taken_lock = threading.Lock()  # harmless: taken_lock
asked = {}  # entity: global-variable asked eager language


def take(berth, ship):
    if berth in taken:  # finding: thread.check-then-act
        return False
    taken[berth] = ship  # finding: thread.unguarded-state
    return True


def leave(berth):
    if berth in taken:  # finding: thread.check-then-act
        del taken[berth]


# Near miss: both under one lock.
def ask(berth, ship):
    with taken_lock:
        if berth not in asked:  # near: thread.check-then-act
            asked[berth] = ship


def answer(berth):
    with taken_lock:
        asked.pop(berth)


# A thread is started on an object that is not complete.
class EchoSounder:
    def __init__(self):
        threading.Thread(target=self.turn).start()  # finding: thread.escaping-this
        self.step = 2

    def turn(self):
        self.step = 3


# Near miss: the thread is the last thing.
class FogBell:
    def __init__(self):
        self.strokes = 3
        threading.Thread(target=self.ring).start()  # near: thread.escaping-this

    def ring(self):
        self.strokes = 1


# Works only after a call, and is used before it.
class Chart:
    def depth(self):
        return 4


class Plotter:  # entity: singleton Plotter lazy none
    _plotter = None

    def __init__(self):  # finding: single.open-constructor
        self.chart = None

    @classmethod
    def plotter(cls):
        if cls._plotter is None:
            cls._plotter = Plotter()  # finding: thread.unguarded-creation
        return cls._plotter

    def load(self, chart):
        self.chart = chart

    def depth(self):
        return self.chart.depth()


# Throws while it is made; near miss: it throws later.
class TideTable:  # entity: singleton TideTable lazy none
    _table = None

    def __init__(self, text=""):  # finding: single.open-constructor
        self.rows = len(text)
        if not self.rows:
            raise ValueError("no tides")

    @classmethod
    def table(cls):
        if cls._table is None:
            cls._table = TideTable()  # finding: init.may-throw thread.unguarded-creation
        return cls._table

    def row(self, number):
        if number > 3:
            raise IndexError(number)
        return number


# The failure is dropped.
class Barograph:
    def __init__(self):
        self.pressure = 0
        try:
            with open("pressure") as source:
                self.pressure = int(source.read())
        except OSError:
            pass  # finding: init.failure-swallowed

    def fall(self):
        self.pressure -= 1


barograph = Barograph()  # entity: shared-instance barograph eager language # finding: init.eager-heavy


# Near miss: it is told.
class Thermograph:
    def __init__(self):
        self.degrees = 0
        try:
            with open("degrees") as source:
                self.degrees = int(source.read())
        except OSError as failure:  # near: init.failure-swallowed
            raise RuntimeError("no degrees") from failure

    def fall(self):
        self.degrees -= 1


thermograph = Thermograph()  # entity: shared-instance thermograph eager language # finding: init.eager-heavy init.may-throw


# Reads the environment.
class NamePlate:
    def __init__(self):
        self.name = os.environ.get("HARBOUR")  # finding: init.reads-environment

    def rename(self, name):
        self.name = name


plate = NamePlate()  # entity: shared-instance plate eager language


# Who is listed is told of each signal.
class SignalMast:
    def __init__(self):
        self.keepers = []

    def attach(self, keeper):
        self.keepers.append(keeper)

    def detach(self, keeper):
        self.keepers.remove(keeper)

    def up(self, signal):
        for keeper in self.keepers:  # finding: lifetime.notify-while-changing
            keeper.heard(signal)

    # Near miss: over a copy.
    def down(self, signal):
        for keeper in list(self.keepers):  # near: lifetime.notify-while-changing
            keeper.heard(signal)


mast = SignalMast()  # entity: shared-instance mast eager language


class Lookout:
    def __init__(self):
        self.last = 0
        mast.attach(self)  # finding: lifetime.dangling-subscriber coupling.hidden-dependency

    def heard(self, signal):
        self.last = signal

    def close(self):
        self.last = 0


# Near miss: taken out at its end.
class Bosun:
    def __init__(self):
        mast.attach(self)  # near: lifetime.dangling-subscriber

    def heard(self, signal):
        self.close()

    def close(self):
        mast.detach(self)


# Registered by its constructor and again by a method.
class Steward:
    def __init__(self):
        mast.attach(self)

    def wake(self):
        mast.attach(self)  # finding: lifetime.duplicate-subscription

    def heard(self, signal):
        print(signal)

    def close(self):
        mast.detach(self)


# Only ever added to; near miss: given a limit.
lines = []  # entity: global-variable lines eager language
recent = []  # entity: global-variable recent eager language


def write(line):
    lines.append(line)  # finding: lifetime.grows-forever


def keep(line):
    recent.append(line)  # near: lifetime.grows-forever
    if len(recent) > 20:  # finding: thread.check-then-act
        recent.pop(0)


# Used after its end; near miss: opened again.
class Gauge:
    def __init__(self):
        self.level = 0
        self.is_open = True

    def close(self):
        self.is_open = False

    def open(self):
        self.is_open = True

    def measure(self):
        self.level += 1
        return self.level


gauge = Gauge()  # entity: shared-instance gauge eager language


def evening():
    gauge.close()
    return gauge.measure()  # finding: lifetime.used-after-teardown


def morning():
    gauge.close()
    gauge.open()
    return gauge.measure()


# Makes its own helper that reads files; near miss: it is handed in.
class ChartStore:
    def depth(self, place):
        with open(place) as source:
            return int(source.read())


class Navigator:
    def __init__(self):
        self.store = ChartStore()  # finding: coupling.fixed-collaborator

    def depth(self):
        return self.store.depth("roads")


class Mate:
    def __init__(self, store):
        self.store = store

    def depth(self):
        return self.store.depth("bay")


# There is only one office in the harbour.
class Office:  # finding: single.meant-single
    def __init__(self):
        self.opened = 0

    def open(self):
        self.opened += 1


def day():
    first = Office()
    second = Office()
    first.open()
    second.open()
    depth = Plotter.plotter().depth()  # finding: init.needs-setup
    Plotter.plotter().load(Chart())
    return depth


def watch():
    board.set(3)
    board.note("fog")
    board.clear()
    take("north", "Heron")
    leave("north")


threading.Thread(target=watch).start()
