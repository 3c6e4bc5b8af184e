"""A class that is a lock itself: what it counts is guarded by what it is."""
import threading


class TurnLatch:
    def __init__(self):
        self._block = threading.Lock()
        self._owner = None
        self._count = 0  # near: thread.mixed-guard

    def acquire(self):
        me = threading.get_ident()
        if self._owner == me:
            self._count = self._count + 1
            return
        self._block.acquire()
        self._owner = me
        self._count = 1

    __enter__ = acquire  # harmless: __enter__

    def release(self):
        self._count = self._count - 1
        if self._count == 0:
            self._owner = None
            self._block.release()

    def __exit__(self, kind, value, trace):
        self.release()

    def _acquire_again(self, count):
        with self._block:
            self._count = count


turn = TurnLatch()  # harmless: turn
berths = {}  # entity: global-variable berths eager language


def take(ship):
    with turn:
        berths[ship] = 1


def leave(ship):
    with turn:
        berths.pop(ship, None)


def serve():
    for ship in ("Alma", "Berta"):
        threading.Thread(target=take, args=(ship,)).start()
        threading.Thread(target=leave, args=(ship,)).start()
