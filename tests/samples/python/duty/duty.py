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
        return self.level

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
    if berth in taken:
        return False
    taken[berth] = ship
    return True


def leave(berth):
    if berth in taken:
        del taken[berth]


def answer(berth):
    with taken_lock:
        asked.pop(berth)


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


# Only ever added to; near miss: given a limit.
lines = []  # entity: global-variable lines eager language
recent = []  # entity: global-variable recent eager language


def write(line):
    lines.append(line)  # finding: lifetime.grows-forever


def keep(line):
    recent.append(line)  # near: lifetime.grows-forever
    if len(recent) > 20:
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


def watch():
    board.set(3)
    board.note("fog")
    board.clear()
    take("north", "Heron")
    leave("north")


threading.Thread(target=watch).start()
