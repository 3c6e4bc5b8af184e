package office

import java.util.concurrent.locks.ReentrantLock

// Made above what its constructor needs.
class SignalCode private constructor() {  // entity: singleton SignalCode eager language
    private var last: String? = null

    init {
        last = FLAGS["north"]
    }

    fun show(flag: String) {
        last = flag
    }

    companion object {
        val CODE = SignalCode()  // finding: init.order-within-class
        private val FLAGS = mutableMapOf("north" to "n")  // harmless: FLAGS
    }
}

// The lock is the caller's own.
class CargoScale private constructor() {  // entity: singleton CargoScale lazy lock
    private var load = 0.0

    companion object {
        private var scale: CargoScale? = null

        fun get(): CargoScale {
            val lock = Any()
            synchronized(lock) {  // finding: thread.wrong-lock
                if (scale == null) {
                    scale = CargoScale()  // finding: init.lazy-needless
                }
                return scale!!
            }
        }
    }
}

// Tested once only.
class TugList private constructor() {  // entity: singleton TugList lazy double-check-unsound
    private var count = 0

    fun add() {
        count = count + 1
    }

    companion object {
        @Volatile
        private var tugs: TugList? = null

        fun get(): TugList {
            if (tugs == null) {  // finding: thread.double-check-incomplete
                synchronized(this) {
                    tugs = TugList()  // finding: init.lazy-needless
                }
            }
            return tugs!!
        }
    }
}

// Lazily, without a guard.
class RadarPlot private constructor() {  // entity: singleton RadarPlot lazy none
    private var echoes = 0

    fun echo() {
        echoes = echoes + 1
    }

    companion object {
        val plot by lazy(LazyThreadSafetyMode.NONE) { RadarPlot() }
    }
}

// Open to subclasses.
open class Harbourmaster protected constructor() {  // entity: singleton Harbourmaster eager language // finding: single.subclassable
    private var name = "none"

    fun rename(to: String) {
        name = to
    }

    companion object {
        val master = Harbourmaster()
    }
}

@Singleton
class CustomsDesk(private val book: TugList)  // entity: container-managed CustomsDesk

// Near misses.
class Receipt {
    companion object {
        fun getInstance() = Receipt()
        const val LIMIT = 12  // harmless: LIMIT
        private val NAMES = listOf("north", "south")  // harmless: NAMES
    }
}
