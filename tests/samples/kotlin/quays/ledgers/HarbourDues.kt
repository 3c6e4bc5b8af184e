// The dues of the harbour, in a layer of their own.
package quays.ledgers

object HarbourDues {  // entity: singleton HarbourDues lazy language
    private var total = 0

    fun enter(coins: Int) {
        total = total + coins
    }

    fun total(): Int = total
}

// Only static members, and a state: nothing to hand in.
class Stamps private constructor() {  // entity: static-holder Stamps eager language
    companion object {
        private var used = 0

        fun use() {
            used = used + 1
        }

        fun used(): Int = used
    }
}
