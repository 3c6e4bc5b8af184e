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


class Charts:  # entity: singleton Charts lazy none
    """A name that serves until another is read takes the place of what fails."""

    _instance = None

    @classmethod
    def get_instance(cls):
        if not cls._instance:
            cls._instance = Charts()  # finding: thread.unguarded-creation
        return cls._instance

    def __init__(self):  # finding: single.open-constructor
        self._scale = None
        self._title = "chart"
        try:
            self._scale = open("scale").read()
            self._title = open("title").read()
        except OSError:  # near: init.failure-swallowed
            pass

    def rename(self, title):
        self._title = title + str(self._scale)


class Buoys:  # entity: singleton Buoys lazy none
    """There may be none: each caller looks, or wants nothing of it."""

    _instance = None

    @classmethod
    def get_instance(cls):
        if not cls._instance:
            if not service.has_buoys():
                return None  # near: single.may-return-nothing
            cls._instance = Buoys()  # finding: thread.unguarded-creation
        return cls._instance

    def __init__(self):  # finding: single.open-constructor
        self._laid = 0

    def lay(self):
        self._laid += 1


def lay_all():
    buoys = Buoys.get_instance()
    if buoys:
        buoys.lay()


class Watchers:  # entity: singleton Watchers lazy none
    """Each is taken out of the list that is walked over; near miss: out of a copy, and the last one that is looked at."""

    _instance = None

    @classmethod
    def get_instance(cls):
        if not cls._instance:
            cls._instance = Watchers()  # finding: thread.unguarded-creation
        return cls._instance

    def __init__(self):  # finding: single.open-constructor
        self._all = []

    def add(self, one):
        self._all.append(one)

    def clear(self):
        for one in self._all:
            self._all.remove(one)  # finding: lifetime.notify-while-changing

    def clear_copy(self):
        for one in list(self._all):
            self._all.remove(one)  # near: lifetime.notify-while-changing

    def drop(self, name):
        for one in self._all:
            if one.name == name:
                self._all.remove(one)  # near: lifetime.notify-while-changing
                break


def reset_handlers():
    root = service.root_logger()
    for handler in root.handlers:
        root.removeHandler(handler)  # finding: lifetime.notify-while-changing


def lay_out(parent):
    Buoys.get_instance()
    Charts.get_instance().rename("tides")
    Watchers.get_instance().add(parent)


def main(parent):
    Signals.get_instance().hoist("P")
    Window.get_instance(parent).turn()
    Berths.get_instance().renew()
    Tides.get_instance().turn()
