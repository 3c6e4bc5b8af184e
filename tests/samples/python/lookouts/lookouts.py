"""A class whose metaclass hands out the one that is there: other slots are names for it."""
from threading import RLock


class OneOnly(type):
    def __init__(cls, name, bases, members):
        super(OneOnly, cls).__init__(name, bases, members)
        cls.__kept = None
        cls.__lock = RLock()

    def __call__(cls, *given, **named):
        with cls.__lock:
            if cls.__kept is None:
                cls.__kept = super(OneOnly, cls).__call__(*given, **named)
        return cls.__kept


class Lookout(metaclass=OneOnly):  # entity: singleton Lookout lazy lock
    def __init__(self):
        self._seen = 0

    def see(self):
        self._seen += 1
        return SEEN


SEEN = "seen"  # harmless: SEEN
