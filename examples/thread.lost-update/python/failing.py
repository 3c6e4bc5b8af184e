# Reading, adding and writing back are steps: another thread can come between them.
import sys
import threading
import time


class CargoScale:
    def __init__(self):
        self.weighed = 0

    def weigh(self):
        before = self.weighed
        time.sleep(0)  # the crate swings in
        self.weighed = before + 1


scale = CargoScale()


def crane():
    for _ in range(2000):
        scale.weigh()


def main():
    sys.setswitchinterval(1e-5)
    cranes = [threading.Thread(target=crane) for _ in range(4)]
    for each in cranes:
        each.start()
    for each in cranes:
        each.join()
    print(scale.weighed, "of 8000 weighed")
    return 0 if scale.weighed == 8000 else 1


if __name__ == "__main__":
    sys.exit(main())
