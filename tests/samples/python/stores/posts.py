_steps = {}  # harmless: _steps
_order = []  # entity: global-variable _order eager language
_codes = []  # harmless: _codes


def step(name):
    def keep(function):
        _order.append(name)  # near: lifetime.grows-forever
        return function
    return keep


@step("moor")
def moor(ship):
    return ship


def _code(word):
    _codes.append(word)  # near: lifetime.grows-forever


_code("north")
_code("south")


class Berth:
    """Refuses what it cannot be made of: that is seen at the first run."""

    def __init__(self, name, places):
        kinds = ("open", "closed")
        for place in places:
            if place not in kinds:
                raise ValueError(place)
        self.name = name
        self.ships = 0

    def moor(self):
        self.ships += 1


class Journal:
    def __init__(self):
        self._file = None

    def end(self):
        file = self._file
        self._file = None
        if file:
            file.close()


journal = Journal()  # entity: shared-instance journal eager language
spare = Berth("spare", ("open",))  # entity: shared-instance spare eager language # near: init.may-throw


_night = []  # entity: global-variable _night eager language
_bells = []  # entity: global-variable _bells eager language
_seen = set()  # entity: global-variable _seen eager language
_drawn = {}  # entity: global-variable _drawn eager language
_extra = {}  # entity: global-variable _extra eager language


# Near misses: there is one of it at most, or only so many; what is added to is the other table.
def keep_night(post):
    if _night:
        return
    _night.append(post)  # near: lifetime.grows-forever


def ring(bell):
    if not _bells:
        _bells.append(bell)  # near: lifetime.grows-forever


def see(ship):
    if len(_seen) < 100:
        _seen.add(ship)  # near: lifetime.grows-forever


def draw(chart):
    _drawn[chart] = chart  # near: lifetime.grows-forever


def drop(chart):
    del _extra[chart]
