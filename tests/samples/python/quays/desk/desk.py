from ledgers.dues import dues


# Near miss: a layer that may.
class Desk:
    def pay(self, coins):
        dues.enter(coins)  # near: tie.layer-breach  # finding: tie.hidden-dependency
