package piers.tests

import piers.ledgers.fees

// Near miss: puts back what it found.
fun testOnce() {
    val before = fees.total
    fees.total = 30  // near: coupling.test-leak
    fees.total = before
}
