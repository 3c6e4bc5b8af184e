"""Who is on duty, and what happened."""
import threading

from office.tickets import take_ticket


class DutyLog:
    def __init__(self):
        self._lines = []
        self._lock = threading.Lock()

    def note(self, line):
        with self._lock:
            self._lines.append(line)

    def length(self):
        return len(self._lines)


log = DutyLog()


class PilotRoster:
    def __init__(self):
        self.on_duty = 0

    def sign_on(self, pilot):
        self.on_duty += 1
        log.note(pilot + " signs on")


roster = PilotRoster()


class NightWatch:
    """Walks the quays in a thread of its own."""

    def start(self):
        self._thread = threading.Thread(target=self._walk)
        self._thread.start()

    def _walk(self):
        if roster.on_duty == 0:
            log.note("no pilot on duty")
        roster.sign_on("the night pilot")
        take_ticket()

    def stop(self):
        self._thread.join()
