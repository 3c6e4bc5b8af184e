"""How an object is kept to one, and how that goes wrong."""
import functools
import threading


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


class CargoScale:  # entity: singleton CargoScale lazy lock # finding: single.open-constructor
    _scale = None

    @classmethod
    def get(cls):
        lock = threading.Lock()
        with lock:  # finding: thread.wrong-lock
            if cls._scale is None:
                cls._scale = cls()  # finding: init.lazy-needless
            return cls._scale

    def weigh(self, tons):
        self.load = tons


class QuayLights:  # entity: singleton QuayLights lazy lock # finding: single.open-constructor
    _lights = None
    _lock = threading.Lock()  # harmless: _lock

    @classmethod
    def get(cls):
        cls._lock.acquire()
        try:
            if cls._lights is None:
                cls._lights = QuayLights()  # finding: init.lazy-needless
            return cls._lights
        finally:
            cls._lock.release()

    def turn(self):
        self.on = True


class TugList:  # entity: singleton TugList lazy double-check-unsound # finding: single.open-constructor
    _tugs = None
    _lock = threading.Lock()  # harmless: _lock

    @classmethod
    def get(cls):
        if cls._tugs is None:  # finding: thread.double-check-incomplete
            with cls._lock:
                cls._tugs = TugList()  # finding: init.lazy-needless
        return cls._tugs

    def add(self):
        self.count = 1


class RadarPlot:  # entity: singleton RadarPlot lazy none # finding: single.open-constructor
    _plot = None

    @staticmethod
    def open():
        RadarPlot._plot = RadarPlot()

    @staticmethod
    def get():
        return RadarPlot._plot  # finding: single.may-return-nothing

    def echo(self):
        self.echoes = 1


class TideClock:
    def __init__(self):
        self.offset = _offsets["north"]

    def shift(self, by):
        self.offset = by


tide_clock = TideClock()  # entity: shared-instance tide_clock eager language # finding: init.order-within-class
_offsets = {"north": 2}  # harmless: _offsets


@functools.lru_cache(maxsize=None)
def anchorage():
    return Anchorage()


class Anchorage:  # entity: shared-instance Anchorage lazy none
    def __init__(self):
        self.ships = 0

    def drop(self):
        self.ships += 1


class Berths:
    _state = {}  # entity: static-field _state eager language

    def __init__(self):
        self.__dict__ = Berths._state


# Near misses.
def receipt():
    return Receipt()


class Receipt:
    LIMIT = 12  # harmless: LIMIT


QUAYS = ("north", "south")  # harmless: QUAYS


def use():
    SignalMast().show("a")
    FogHorn().blow()
    TideClock()
    anchorage().drop()
