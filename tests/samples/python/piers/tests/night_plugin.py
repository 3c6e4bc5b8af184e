from ledgers.fees import fees


# Near miss: loaded into the program by hand, and no test.
def install(desk):
    fees.total = desk  # near: coupling.test-leak
