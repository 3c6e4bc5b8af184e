package quays.desk;

import quays.ledgers.HarbourDues;

// Near miss: a layer that may.
class Desk {
    void pay(int coins) {
        HarbourDues.dues().enter(coins);  // finding: coupling.hidden-dependency // near: coupling.layer-breach
    }
}
