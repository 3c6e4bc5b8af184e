# Asking for the one log runs its __init__ again, which empties it.
import sys


class DutyLog:
    _log = None

    def __new__(cls):
        if cls._log is None:
            cls._log = super().__new__(cls)
        return cls._log

    def __init__(self):
        self.entries = []


def main():
    DutyLog().entries.append("pilot aboard")
    print(len(DutyLog().entries), "entries")
    return 0 if len(DutyLog().entries) == 1 else 1


if __name__ == "__main__":
    sys.exit(main())
