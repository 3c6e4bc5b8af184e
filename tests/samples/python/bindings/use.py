import charts
import hub
from hub import Desk, Settings, _table

later = None  # entity: global-variable later elsewhere none


def fill(key):
    _table[key] = 1  # near: lifetime.grows-forever
    hub._count += 1


def put(value):
    from hub import box
    box.append(value)  # finding: lifetime.grows-forever


def go():
    global later
    if later is None:
        from reactor import call as later
    later()


def show(desk):
    desk.window = "open"
    return Settings().width


hub.tables = charts


def look(place):
    return hub.tables.depth(place)
