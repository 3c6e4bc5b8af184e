from ledgers.dues import dues


# Near miss: puts it back.
def test_adds_up_and_clears():
    dues.enter(3)  # near: coupling.test-leak
    dues.clear()
