# One lock around the test and the making.
import sys
import threading
import time


class TideTable:
    _table = None
    _making = threading.Lock()
    made = []

    def __init__(self):
        time.sleep(0.02)  # works out the year's tides
        TideTable.made.append(1)

    @classmethod
    def table(cls):
        with cls._making:
            if cls._table is None:
                cls._table = cls()
            return cls._table


def main():
    pilots = [threading.Thread(target=TideTable.table) for _ in range(4)]
    for pilot in pilots:
        pilot.start()
    for pilot in pilots:
        pilot.join()
    print(len(TideTable.made), "made")
    return 0 if len(TideTable.made) == 1 else 1


if __name__ == "__main__":
    sys.exit(main())
