import functools


class KeptOnce(type):
    _kept = {}  # entity: static-field _kept eager language

    def __call__(cls, *args, **kwargs):
        if cls not in cls._kept:
            cls._kept[cls] = super().__call__(*args, **kwargs)  # finding: thread.unguarded-creation  # finding: lifetime.grows-forever
        return cls._kept[cls]


class SignalMast(metaclass=KeptOnce):  # entity: singleton SignalMast lazy none
    def __init__(self):
        self.flag = ""

    def show(self, flag):
        self.flag = flag


def kept(cls):
    instances = {}

    @functools.wraps(cls)
    def make(*args, **kwargs):
        if cls not in instances:
            instances[cls] = cls(*args, **kwargs)  # finding: thread.unguarded-creation
        return instances[cls]

    return make


@kept
class FogHorn:  # entity: singleton FogHorn lazy none
    def __init__(self):
        self.blown = 0

    def blow(self):
        self.blown += 1


class Berths:
    _state = {}  # entity: static-field _state eager language

    def __init__(self):
        self.__dict__ = Berths._state
