"""Berths of the harbour."""
import os
import threading

# Which ship lies where.
taken = {}


def take(berth, ship):
    """Takes a berth for a ship."""
    if berth in taken:
        return False
    taken[berth] = ship
    return True


def leave(berth):
    if berth in taken:
        del taken[berth]

    return os.sep


def main():
    threading.Thread(target=take, args=("north", "Heron")).start()
    take("north", "Tern")
    leave("north")


main()
