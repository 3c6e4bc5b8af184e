"""A lock that is only tried, and given back in the last part of a try."""
import threading


class SlipGauge:
    def __init__(self):
        self._lock = threading.Lock()
        self.depth = 0
        self.draught = 0

    def set(self, depth, draught):
        with self._lock:
            self.depth = depth
            self.draught = draught

    # Near miss: whoever gives it back held it.
    def read_depth(self):
        if not self._lock.acquire(False):
            return -1
        try:
            return self.depth  # near: thread.mixed-guard
        finally:
            self._lock.release()

    def read_draught(self):
        try:
            return self.draught
        finally:
            print("read")


gauge = SlipGauge()  # entity: shared-instance gauge eager language
