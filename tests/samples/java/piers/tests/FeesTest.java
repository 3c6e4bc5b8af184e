package piers.tests;

import piers.ledgers.PilotFees;

// Leaves behind what it entered, twice.
public class FeesTest {
    public void testTwice() {
        PilotFees fees = PilotFees.fees();
        fees.enter(1);  // finding: coupling.test-leak
        fees.enter(2);
    }
}
