from ledgers.fees import fees


# Leaves behind what it set.
def test_twice():
    fees.total = 30  # finding: coupling.test-leak
    assert fees.total == 30
