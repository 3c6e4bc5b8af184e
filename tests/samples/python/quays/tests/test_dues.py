from ledgers.dues import dues


# Leaves behind what it entered.
def test_adds_up():
    dues.enter(3)  # finding: coupling.test-leak
    dues.enter(4)
