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


class StartUp:
    """Tells those who listen, in the order in which they came, that the program starts."""

    def __init__(self):
        self._listeners = []

    def add(self, listener):
        self._listeners.append(listener)

    def announce(self):
        for listener in self._listeners:
            listener()


def open_harbour(day):
    """Opens the harbour."""
    start_up = StartUp()
    start_up.add(lambda: Tides.get().start(day))
    start_up.add(lambda: Berths.get().start(day))
    start_up.add(lambda: Pilots.get().start(""))
    start_up.announce()


if __name__ == "__main__":
    open_harbour("Monday")
