"""What counts each time it is asked, though nobody sets it."""
from itertools import count
from random import Random

numbers = count(1)  # entity: global-variable numbers eager language
dice = Random()  # entity: shared-instance dice eager language
colours = ("red", "green")  # harmless: colours


def ticket():
    return next(numbers), dice.random(), colours[0]
