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

/** Opens the harbour. */
fun open(day: String) {
    Tides.start(day)
    Berths.start(day)
    Pilots.start("")
}

fun main() {
    open("Monday")
}
