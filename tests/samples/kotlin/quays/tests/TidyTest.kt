package quays.tests

import quays.ledgers.HarbourDues

// Near miss: puts it back.
class TidyTest {
    fun addsUp() {
        HarbourDues.enter(3)  // near: coupling.test-leak
        HarbourDues.clear()
    }
}
