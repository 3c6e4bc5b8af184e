package piers.hall

import piers.ledgers.fees

// A layer that may reach none, through the module.
class Board {
    private var shown: Int = 0

    fun show() {
        this.shown = fees.total  // finding: coupling.layer-breach
    }
}
