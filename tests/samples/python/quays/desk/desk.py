from ledgers.dues import dues


# Near miss: a layer that may.
class Desk:
    def pay(self, coins):
        dues.enter(coins)  # near: coupling.layer-breach  # finding: coupling.hidden-dependency
