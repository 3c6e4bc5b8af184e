"""Module-level and class-level state, and what only looks like it."""
from .books import BerthBook, clock, duty_log, get_roster
from . import books


try:
    import fastcodes
except ImportError:
    fastcodes = None  # harmless: fastcodes


NAMES = {"A": "anchor"}  # harmless: NAMES
LIMIT = 12  # harmless: LIMIT
WAITING = []  # entity: global-variable WAITING eager language
_next = 1  # entity: global-variable _next eager language
Ready = bool  # harmless: Ready


def draw():
    global _next
    _next += 1
    return _next


def arrive(ship):
    WAITING.append(ship)
    BerthBook().assign(ship, 4)
    get_roster().add(ship)
    duty_log().write(ship)
    clock.tick()
    books.clock.tick()
    return BerthBook().count()


if __name__ == "__main__":
    berth = 1
    berth = 2
    arrive("Elm")
