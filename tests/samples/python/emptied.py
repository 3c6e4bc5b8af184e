# Lists that are begun anew in one go, filled while the module is loaded, or keep each value once.
class Signals:
    def __init__(self):
        self.waiting = []
        self.kept = []

    def hoist(self, flag):
        self.waiting.append(flag)  # near: lifetime.grows-forever
        self.kept.append(flag)  # finding: lifetime.grows-forever

    def show(self):
        shown, self.waiting = self.waiting, []
        for flag in shown:
            flag.show()


signals = Signals()  # entity: shared-instance signals eager language

restricted = []  # entity: global-variable restricted eager language


def needs_pilot(method):
    restricted.append(method.__name__)  # near: lifetime.grows-forever
    return method


class Channel:
    @needs_pilot
    def enter(self, ship):
        signals.hoist(ship)
        return ship in restricted
