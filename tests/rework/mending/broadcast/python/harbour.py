"""The harbour in the morning."""


class Tides:
    _shared = None

    def __init__(self):
        self._started = 0

    @classmethod
    def get(cls):
        if cls._shared is None:
            cls._shared = cls()
        return cls._shared

    def start(self, day):
        self._started += 1
        print("tides", self._started, day)


class Berths:
    _shared = None

    def __init__(self):
        self._started = 0

    @classmethod
    def get(cls):
        if cls._shared is None:
            cls._shared = cls()
        return cls._shared

    def start(self, day):
        self._started += 1
        print("berths", self._started, day)


class Pilots:
    _shared = None

    def __init__(self):
        self._started = 0

    @classmethod
    def get(cls):
        if cls._shared is None:
            cls._shared = cls()
        return cls._shared

    def start(self, day):
        self._started += 1
        print("pilots", self._started, day)


def open_harbour(day):
    """Opens the harbour."""
    Tides.get().start(day)
    Berths.get().start(day)
    Pilots.get().start("")


if __name__ == "__main__":
    open_harbour("Monday")
