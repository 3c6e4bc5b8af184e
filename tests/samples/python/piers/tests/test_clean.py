from ledgers.fees import fees


# Near miss: puts back what it found.
def test_once():
    before = fees.total
    fees.total = 3  # near: coupling.test-leak
    fees.total = before
