from ledgers import clock


def test_stamp():
    before = clock.now
    clock.now = lambda: 3
    assert clock.stamp() == 3
    clock.now = before
