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


SIGNS = Signs()  # entity: registry SIGNS eager language
OFFICE = Office()  # entity: global-variable OFFICE eager language


def raise_sign(sign):
    SIGNS.enable(sign)


def open_office(window):
    OFFICE.window = window
