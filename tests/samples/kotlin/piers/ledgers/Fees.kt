package piers.ledgers

// The fees of the pilots, in a layer of their own.
class PilotFees {
    var total: Int = 0

    fun enter(coins: Int) {
        this.total = coins
    }

    fun clear() {
        this.total = 0
    }
}
