"""What is written outside of functions runs once."""
from stores import GROUPS


_NIGHT = "night work"  # harmless: _NIGHT
GROUPS[_NIGHT] = b"work between sunset and sunrise"  # near: lifetime.grows-forever # near: coupling.hidden-dependency
