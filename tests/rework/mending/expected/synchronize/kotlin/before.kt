import kotlin.concurrent.thread

// Weighed by several cranes at once.
object CargoScale {
    private val gate = Any()
    private val crates = mutableListOf<Int>()
    private var loads = 0

    fun weigh(crate: Int) {
        synchronized(gate) {
            crates.add(crate)
        }
    }

    fun drop(crate: Int) {
        synchronized(gate) {
            crates.remove(crate)
        }
    }

    fun load() {
        synchronized(gate) { loads = loads + 1 }
    }

    // What the mast shows.
    fun loads(): Int = synchronized(gate) { loads }
}

fun unload() {
    thread { CargoScale.weigh(3) }
    thread { CargoScale.load() }
    CargoScale.weigh(4)
    CargoScale.drop(4)
    CargoScale.load()
    CargoScale.loads()
}

fun main() {
    unload()
    Thread.sleep(100)
    println(CargoScale.loads())
}
