"""Names that are built in, and a lock that belongs to what a variable holds."""
import threading

text = str  # harmless: text  # near: init.order-within-class
str = type("")  # harmless: str


class Rope:
    def __init__(self):
        self.lock = threading.Lock()
        self.knots = []


class Mast:  # entity: static-holder Mast lazy none
    rope = None


def let_go():
    if Mast.rope is not None:
        with Mast.rope.lock:
            Mast.rope.knots.clear()
        Mast.rope = None  # near: thread.mixed-guard


def rig():
    Mast.rope = Rope()


def start():
    threading.Thread(target=let_go).start()
    threading.Thread(target=rig).start()
