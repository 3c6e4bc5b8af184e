# The night office finds the day office in the slot that both use.
import sys


class Office:
    _office = None

    @classmethod
    def office(cls):
        if Office._office is None:
            Office._office = cls()
        return Office._office


class NightOffice(Office):
    pass


def main():
    Office.office()
    print("night office:", type(NightOffice.office()).__name__)
    return 0 if isinstance(NightOffice.office(), NightOffice) else 1


if __name__ == "__main__":
    sys.exit(main())
