import ledgers.fees


# A layer that may reach none, through the module.
class Board:
    def __init__(self):
        self.shown = 0

    def show(self):
        self.shown = ledgers.fees.fees.total  # finding: coupling.hidden-dependency coupling.layer-breach
