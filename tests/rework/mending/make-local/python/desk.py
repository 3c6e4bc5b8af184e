"""The desk of the harbour."""

_served = 2


class Desk:
    """Serves ships."""

    def __init__(self, places):
        self._open = places

    def serve(self, ships):
        global _served
        _served += ships * self._open

    def all(self):
        return _served


if __name__ == "__main__":
    desk = Desk(1)
    desk.serve(3)
    print(desk.all())
