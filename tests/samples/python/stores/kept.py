"""What is kept under a key tells what a table is."""

signal_kinds = {}  # entity: global-variable signal_kinds eager language


class SignalKind(type):
    def __init__(cls, name, bases, members):
        super(SignalKind, cls).__init__(name, bases, members)
        signal_kinds[name] = cls


def signal_kind(name):
    return signal_kinds[name]


class Crew:
    def __init__(self, size):
        self.people = {}
        self.after = {}
        self.size = size

    def enlist(self, one):
        for other in one.needs:
            self.after[other].append(one.name)
        self.people[one.name] = one  # near: lifetime.grows-forever


_crew = Crew(12)  # entity: registry _crew eager language


def enlist(one):
    _crew.enlist(one)


def person_named(name):
    return _crew.people[name]
