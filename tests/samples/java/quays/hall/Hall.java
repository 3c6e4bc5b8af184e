package quays.hall;

import quays.ledgers.HarbourDues;

// A layer that may reach none.
class Hall {
    int show() {
        return HarbourDues.dues().total();  // finding: coupling.layer-breach
    }
}
