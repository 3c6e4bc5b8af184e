import _thread
import os
import queue


# Near misses: what the slot held before is put back; the thread never looks at what is set after its start; a queue is emptied by get.
class Watch:
    def __init__(self):
        self.data = {}
        self._before = None

    def run(self, function):
        self._before = state.watch
        try:
            state.watch = self  # near: lifetime.captured-short-lived
            return function()
        finally:
            state.watch = self._before
            self._before = None


def night():
    return Watch().run(print)


class State:
    def __init__(self):
        self.watch = Watch()
        self.calls = queue.Queue()

    def call(self, ship):
        self.calls.put(ship)  # near: lifetime.grows-forever

    def answer(self):
        return self.calls.get()


state = State()  # entity: shared-instance state eager language


class Lookout:
    def __init__(self):
        self.seen = []
        self.ident = _thread.start_new_thread(self, ())  # near: thread.escaping-this
        self.pid = os.getpid()

    def __call__(self):
        while True:
            self.seen.append(1)

    def on_fork(self):
        self.pid = os.getpid()
