# Closing it takes it out of the list.
import sys


class SignalMast:
    def __init__(self):
        self._displays = []

    def attach(self, display):
        self._displays.append(display)

    def detach(self, display):
        self._displays.remove(display)

    def raise_signal(self, signal):
        for display in self._displays:
            display.heard(signal)


mast = SignalMast()
late = []


class Display:
    def __init__(self):
        self._open = True
        mast.attach(self)

    def heard(self, signal):
        if not self._open:
            late.append(signal)

    def close(self):
        self._open = False
        mast.detach(self)


def main():
    display = Display()
    display.close()
    mast.raise_signal(3)
    print(len(late), "signals to closed displays")
    return 0 if not late else 1


if __name__ == "__main__":
    sys.exit(main())
