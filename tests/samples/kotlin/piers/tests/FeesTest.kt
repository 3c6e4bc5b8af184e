package piers.tests

import piers.ledgers.fees

// Leaves behind what it set.
fun testTwice() {
    fees.total = 30  // finding: coupling.test-leak
    check(fees.total == 30)
}
