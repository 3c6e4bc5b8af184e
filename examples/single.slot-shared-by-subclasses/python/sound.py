# A slot for each class, in a table by class.
import sys


class Office:
    _offices = {}

    @classmethod
    def office(cls):
        if cls not in Office._offices:
            Office._offices[cls] = cls()
        return Office._offices[cls]


class NightOffice(Office):
    pass


def main():
    Office.office()
    print("night office:", type(NightOffice.office()).__name__)
    return 0 if isinstance(NightOffice.office(), NightOffice) else 1


if __name__ == "__main__":
    sys.exit(main())
