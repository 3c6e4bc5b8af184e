"""Two of its users."""
from lookouts import Lookout

lookout = Lookout()  # harmless: lookout


def watch():
    return lookout.see()
