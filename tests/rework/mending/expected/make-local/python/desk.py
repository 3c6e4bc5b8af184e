"""The desk of the harbour."""


class Desk:
    """Serves ships."""

    def __init__(self, places):
        self._served = 2
        self._open = places

    def serve(self, ships):
        self._served += ships * self._open

    def all(self):
        return self._served


if __name__ == "__main__":
    desk = Desk(1)
    desk.serve(3)
    print(desk.all())
