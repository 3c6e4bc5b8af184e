import threading


class Tally:  # entity: static-holder Tally eager language
    ships = 0
    boats = 0
    _gate = threading.Lock()  # harmless: _gate

    @classmethod
    def arrive(cls):
        cls.ships += 1  # finding: thread.lost-update
        with cls._gate:
            cls.boats += 1


_keeper = threading.local()  # entity: thread-local _keeper eager language
