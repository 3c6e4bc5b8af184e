package quays.tests;

import quays.ledgers.HarbourDues;

// Near miss: puts it back.
class TidyTest {
    void addsUp() {
        HarbourDues.dues().enter(3);  // near: coupling.test-leak
        HarbourDues.dues().clear();
    }
}
