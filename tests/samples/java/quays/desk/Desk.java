package quays.desk;

import quays.ledgers.HarbourDues;

// Near miss: a layer that may.
class Desk {
    void pay(int coins) {
        HarbourDues.dues().enter(coins);  // finding: tie.hidden-dependency // near: tie.layer-breach
    }
}
