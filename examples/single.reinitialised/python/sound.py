# What it begins with is set where it is made.
import sys


class DutyLog:
    _log = None

    def __new__(cls):
        if cls._log is None:
            log = super().__new__(cls)
            log.entries = []
            cls._log = log
        return cls._log


def main():
    DutyLog().entries.append("pilot aboard")
    print(len(DutyLog().entries), "entries")
    return 0 if len(DutyLog().entries) == 1 else 1


if __name__ == "__main__":
    sys.exit(main())
