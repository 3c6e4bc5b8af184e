class Foghorn:  # entity: singleton Foghorn lazy none
    _horn = None

    def __new__(cls):
        if cls._horn is None:
            cls._horn = super().__new__(cls)  # finding: thread.unguarded-creation
        return cls._horn

    def __init__(self):
        self.blown = 0  # finding: single.reinitialised

    def blow(self):
        self.blown += 1


if __name__ == "__main__":
    horn = Foghorn()
    horn.blow()
