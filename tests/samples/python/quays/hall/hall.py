from ledgers.dues import dues


# A layer that may reach none.
class Hall:
    def show(self):
        return dues.total  # finding: coupling.layer-breach
