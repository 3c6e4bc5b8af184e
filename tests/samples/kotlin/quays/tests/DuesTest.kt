package quays.tests

import quays.ledgers.HarbourDues

// Leaves behind what it entered.
class DuesTest {
    fun addsUp() {
        HarbourDues.enter(3)  // finding: coupling.test-leak
        HarbourDues.enter(4)
    }
}
