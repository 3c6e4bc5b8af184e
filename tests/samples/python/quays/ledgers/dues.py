class HarbourDues:
    def __init__(self):
        self.total = 0

    def enter(self, coins):
        self.total = self.total + coins


dues = HarbourDues()  # entity: shared-instance dues eager language
