package quays.hall

import quays.ledgers.HarbourDues

// A layer that may reach none.
class Hall {
    fun show(): Int {
        return HarbourDues.total()  // finding: coupling.layer-breach
    }
}
