interface Keeper {
    fun heard(signal: Int)
}

object SignalMast {
    private val keepers = mutableListOf<Keeper>()

    fun attach(keeper: Keeper) {
        keepers.add(keeper)
    }

    fun raise(signal: Int) {
        for (keeper in keepers.toList()) keeper.heard(signal)
    }
}

class Lookout : Keeper {
    private var last = 0

    init {
        SignalMast.attach(this)
    }

    override fun heard(signal: Int) {
        last = signal
    }

    fun close() { last = 0 }
}

fun main() {
    val lookout = Lookout()
    SignalMast.raise(3)
    lookout.close()
    println("closed")
}
