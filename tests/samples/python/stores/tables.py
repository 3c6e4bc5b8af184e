"""What is written outside of functions runs once."""
from stores import GROUPS

_NIGHT = "night work"  # harmless: _NIGHT
GROUPS[_NIGHT] = b"work between sunset and sunrise"  # near: life.grows-forever # near: tie.hidden-dependency


def title(kind):
    return GROUPS.get(kind)  # finding: tie.hidden-dependency

