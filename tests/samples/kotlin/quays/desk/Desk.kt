package quays.desk

import quays.ledgers.HarbourDues

// Near miss: a layer that may.
class Desk {
    fun pay(coins: Int) {
        HarbourDues.enter(coins)  // near: coupling.layer-breach  // finding: coupling.hidden-dependency
    }
}
