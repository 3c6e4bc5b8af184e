package piers.tests;

import piers.ledgers.PilotFees;

// Near miss: what runs after each test empties it.
public class CleanTest {
    public void testOnce() {
        PilotFees.fees().enter(1);  // near: coupling.test-leak
    }

    public void tearDown() {
        PilotFees.fees().clear();
    }
}
