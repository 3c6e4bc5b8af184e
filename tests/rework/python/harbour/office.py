"""Pilots, a ferry, and the office that sends them out."""
from harbour.tides import TideTable


class Pilot:
    def __init__(self, name, draught=1):
        """A pilot of ships that lie that deep."""
        self.name = name
        self.draught = draught

    def advice(self, hour):
        deep = TideTable.table().height(hour) > self.draught
        return self.name + (" sails at " if deep else " waits at ") + str(hour)


class Ferry:
    """Leaves when the water is high."""

    def departure(self):
        hour = 0
        while TideTable.table().height(hour) < 6:
            hour += 1
        return hour


class Office:
    def __init__(self, *names, **options):
        self.pilots = [Pilot(name) for name in names]
        self.title = options.get("title", "office")

    def hire(self, name, draught):
        self.pilots.append(Pilot(name, draught))

    def day(self):
        lines = [pilot.advice(4) for pilot in self.pilots]
        return "\n".join(lines + [f"ferry at {Ferry().departure()}"])
