class TideFile:
    def __init__(self, path):
        self.path = path

    def read(self):
        with open(self.path) as lines:
            return lines.read()


class Desk:
    def __init__(self, port):
        self.port = port
        self._tides = TideFile(port + ".txt")

    def height(self):
        return len(self._tides.read())


class Board:
    """Several lines of parameters."""

    def __init__(
        self,
        rows,
        columns=2,
    ):
        self.tides = TideFile("board.txt")
        self.rows = rows * columns

    def width(self):
        return len(self.tides.read()) + self.rows


if __name__ == "__main__":
    for name, text in (("north.txt", "four"), ("board.txt", "six ty")):
        with open(name, "w") as out:
            out.write(text)
    print(Desk("north").height() + Board(1).width())
