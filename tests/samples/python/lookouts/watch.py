"""Two of its users."""
from lookouts import Lookout

lookout = Lookout()


def watch():
    return lookout.see()
