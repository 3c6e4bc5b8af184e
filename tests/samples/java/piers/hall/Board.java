package piers.hall;

import piers.ledgers.PilotFees;

// A layer that may reach none, by way of a method of its own.
public class Board {
    private int shown;

    public void show() {
        shown = fees().total();  // finding: coupling.hidden-dependency coupling.layer-breach
    }

    private PilotFees fees() {
        return PilotFees.fees();
    }
}
