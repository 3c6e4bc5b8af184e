"""What a failed attempt leaves behind."""
import os
import service


class Signals:  # entity: singleton Signals lazy none
    """Made to do without: what is set last is asked for."""

    _instance = None

    @classmethod
    def get_instance(cls):
        if not cls._instance:
            cls._instance = Signals()  # finding: thread.unguarded-creation
        return cls._instance

    def __init__(self):  # finding: single.open-constructor
        self._mast = None
        try:
            self._line = service.open_line("mast")
            self._mast = service.find_mast(self._line)
        except Exception as error:
            print("no mast", error)

    def hoist(self, flag):
        if self._mast is None:
            return False
        self._mast.hoist(flag)
        self._line = flag
        return True


class Window:  # entity: singleton Window lazy none
    """The error is shown."""

    _instance = None

    @classmethod
    def get_instance(cls, parent):
        try:
            if not cls._instance:
                cls._instance = Window()  # finding: thread.unguarded-creation
            return cls._instance
        except Exception as error:
            parent.errors.show("The window cannot be opened: %s" % str(error))

    def __init__(self):  # finding: single.open-constructor
        self.plan = open("plan").read()

    def turn(self):
        self.plan = self.plan[1:]


class Berths:  # entity: singleton Berths lazy none
    """What may fail sets nothing."""

    _instance = None

    @classmethod
    def get_instance(cls):
        if not cls._instance:
            cls._instance = Berths()  # finding: thread.unguarded-creation
        return cls._instance

    def __init__(self):  # finding: single.open-constructor
        try:
            os.makedirs("berths")
        except OSError:
            pass
        self.rows = []

    def renew(self):
        self.rows = []


class Tides:  # entity: singleton Tides lazy none
    """Incomplete afterwards."""

    _instance = None

    @classmethod
    def get_instance(cls):
        if not cls._instance:
            cls._instance = Tides()  # finding: thread.unguarded-creation
        return cls._instance

    def __init__(self):  # finding: single.open-constructor
        try:
            self.table = open("tides").read()
        except OSError:  # finding: init.failure-swallowed
            pass

    def turn(self):
        self.table = self.table[1:]


def main(parent):
    Signals.get_instance().hoist("P")
    Window.get_instance(parent).turn()
    Berths.get_instance().renew()
    Tides.get_instance().turn()
