"""Where each step on a collection is whole, and what a thread finds when it is started."""
import asyncio
import queue
import threading
from typing import cast


class Book:  # entity: singleton Book lazy none
    _book = None

    def __init__(self):  # finding: single.open-constructor
        self.ships = {}

    @classmethod
    def book(cls):
        if cls._book is None:
            cls._book = Book()  # finding: thread.unguarded-creation
        return cls._book


ships = {}  # entity: global-variable ships eager language
berths = {}  # entity: global-variable berths eager language
jobs = queue.PriorityQueue()  # entity: global-variable jobs eager language


def enter(ship):
    ships[ship] = 1  # near: thread.unguarded-state  # near: lifetime.grows-forever
    berths[ship] = 1  # finding: thread.unguarded-state  # near: lifetime.grows-forever
    jobs.put(ship)  # near: thread.unguarded-state  # near: lifetime.grows-forever


class Clerk:
    def __init__(self):
        Book.book()  # near: coupling.hidden-dependency
        self.kept = threading.Thread(target=self.work)
        self.kept.start()

    def work(self):
        Book.book().ships.clear()
        print(ships.get("Tern"), jobs.get())
        for ship in berths:
            print(ship)


class Office:
    def __init__(self):
        self.turn = asyncio.Lock()
        self.visits = 0

    # Near miss: tasks of one thread take turns.
    async def visit(self):
        async with self.turn:
            self.visits += 1  # near: thread.mixed-guard

    def count(self):
        return self.visits


office = cast(Office, None)  # entity: shared-instance office lazy none


def open_office():
    global office
    office = Office()  # near: single.replaceable


class Lamp:
    _lamp = None  # entity: static-field _lamp lazy none

    @classmethod
    def show(cls, report):
        try:
            if not cls._lamp:
                cls._lamp = Lamp()
            cls._lamp.light()
        except OSError as error:  # near: init.failure-swallowed
            report("no lamp: %s" % error)

    def light(self):
        self.lit = True


def main():
    Clerk()
    for ship in ("Tern", "Gull"):
        enter(ship)
    open_office()
    Lamp.show(print)


# A table of locks: entries are made under a lock, and taken without it.
gates = {}  # entity: global-variable gates eager language
gates_lock = threading.Lock()  # harmless: gates_lock


def pass_gate(name):
    with gates_lock:
        if gates.get(name) is None:
            gates[name] = threading.Lock()  # near: lifetime.grows-forever
    gates[name].acquire()  # near: thread.mixed-guard
    try:
        enter(name)
    finally:
        gates[name].release()
