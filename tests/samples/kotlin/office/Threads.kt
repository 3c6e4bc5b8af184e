package office

import java.util.concurrent.atomic.AtomicInteger
import kotlin.concurrent.thread

// Counted by two threads.
object Tally {  // entity: singleton Tally eager language
    var ships = 0
    val boats = AtomicInteger()  // harmless: boats
    private val names = mutableListOf<String>()

    fun arrive() {
        ships = ships + 1  // finding: thread.lost-update
        boats.incrementAndGet()
    }

    @Synchronized
    fun note(name: String) {
        names.add(name)  // finding: lifetime.grows-forever
    }
}

fun watchTheGate() {
    thread { Tally.arrive() }
    Tally.arrive()
}
