class Signs:
    def __init__(self):
        self.known = {}

    def enable(self, sign):
        self.known[sign.key] = sign

    def disable(self, sign):
        del self.known[sign.key]


class Office:
    def __init__(self):
        self.window = None
        self.book = None


CALLERS = []  # entity: global-variable CALLERS eager language


def call_all(sign):
    for caller in list(CALLERS):
        caller(sign)


def call_me(caller):
    CALLERS.append(caller)


def leave_me(caller):
    CALLERS.remove(caller)


SIGNS = Signs()  # entity: registry SIGNS eager language
OFFICE = Office()  # entity: global-variable OFFICE eager language


def raise_sign(sign):
    SIGNS.enable(sign)


def open_office(window):
    OFFICE.window = window
