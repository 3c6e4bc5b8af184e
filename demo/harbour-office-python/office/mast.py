"""The mast on the office's roof, and who is told of its signals."""


class SignalMast:
    def __init__(self):
        self._keepers = []

    def enlist(self, keeper):
        self._keepers.append(keeper)

    def dismiss(self, keeper):
        self._keepers.remove(keeper)

    def hoist(self, signal):
        for keeper in list(self._keepers):
            keeper.raised(signal)
        return len(self._keepers)


mast = SignalMast()


class Lantern:
    """Is lit for a night signal; stays on the mast's list for good."""

    def __init__(self):
        self.lit = False
        self.open = True
        self.late = 0
        mast.enlist(self)

    def raised(self, signal):
        if not self.open:
            self.late += 1
            return
        self.lit = signal == "night"

    def close(self):
        self.open = False


class FogHorn:
    """Sounds in fog; takes itself off the list when it goes."""

    def __init__(self):
        self.blasts = 0
        mast.enlist(self)

    def raised(self, signal):
        if signal == "fog":
            self.blasts += 1

    def close(self):
        mast.dismiss(self)
