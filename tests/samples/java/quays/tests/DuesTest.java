package quays.tests;

import quays.ledgers.HarbourDues;

// Leaves behind what it entered.
class DuesTest {
    void addsUp() {
        HarbourDues.dues().enter(3);  // finding: coupling.test-leak
        HarbourDues.dues().enter(4);
    }
}
