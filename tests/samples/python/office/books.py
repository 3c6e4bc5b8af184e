from functools import lru_cache


# Construction overridden, unguarded; and __init__ runs again on every call.
class BerthBook:  # entity: singleton BerthBook lazy none
    _instance = None

    def __new__(cls):
        if cls._instance is None:
            cls._instance = super().__new__(cls)  # finding: thread.unguarded-creation
        return cls._instance

    def __init__(self):
        self.berths = {}  # finding: single.reinitialised
        self.changes = 0

    def assign(self, ship, berth):
        self.berths[ship] = berth  # near: lifetime.grows-forever
        self.changes += 1

    def count(self):
        return self.changes


# A module variable behind a function.
class PilotRoster:  # entity: singleton PilotRoster lazy none
    def __init__(self):
        self.pilots = []

    def add(self, pilot):
        self.pilots.append(pilot)  # finding: lifetime.grows-forever


_roster = None


def get_roster():
    global _roster
    if _roster is None:
        _roster = PilotRoster()  # finding: thread.unguarded-creation
    return _roster


# A memoised factory without arguments.
class DutyLog:  # entity: singleton DutyLog lazy none
    def __init__(self):
        self.lines = []

    def write(self, line):
        self.lines.append(line)  # finding: lifetime.grows-forever


@lru_cache(maxsize=None)
def duty_log():
    return DutyLog()


# A ready instance of the module.
class Clock:
    def __init__(self):
        self.ticks = 0

    def tick(self):
        self.ticks += 1


clock = Clock()  # entity: shared-instance clock eager language
