class PilotFees:
    def __init__(self):
        self.total = 0

    def enter(self, coins):
        self.total = coins

    def clear(self):
        self.total = 0


fees = PilotFees()  # entity: shared-instance fees eager language


# Near miss: a layer may reach its own.
def twice(of):
    return fees.total + of.total  # near: coupling.layer-breach
