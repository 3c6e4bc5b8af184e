object Tides {
    private var started = 0

    fun start(day: String) {
        started++
        println("tides $started$day")
    }
}

object Berths {
    private var started = 0

    fun start(day: String) {
        started++
        println("berths $started$day")
    }
}

object Pilots {
    private var started = 0

    fun start(day: String) {
        started++
        println("pilots $started$day")
    }
}

/** Tells those who listen, in the order in which they came, that the program starts. */
private class StartUp {
    private val listeners = mutableListOf<() -> Unit>()

    fun add(listener: () -> Unit) {
        listeners.add(listener)
    }

    fun announce() {
        listeners.forEach { it() }
    }
}

/** Opens the harbour. */
fun open(day: String) {
    val startUp = StartUp()
    startUp.add { Tides.start(day) }
    startUp.add { Berths.start(day) }
    startUp.add { Pilots.start("") }
    startUp.announce()
}

fun main() {
    open("Monday")
}
