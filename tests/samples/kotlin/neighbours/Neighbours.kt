package neighbours

import java.util.concurrent.ConcurrentHashMap

// Written for threads, but for one table.
object Moorings {  // entity: singleton Moorings lazy language
    @Volatile
    var watcher: ((String) -> Unit)? = null
    private val ships: LinkedHashMap<String, Int> = LinkedHashMap()
    private val crews = ConcurrentHashMap<String, Int>()

    fun moor(ship: String) {
        ships[ship] = 1  // finding: thread.unguarded-state
        crews[ship] = 1
    }

    fun leave(ship: String) {
        ships.remove(ship)
        crews.remove(ship)
    }

    fun all(): String {
        var out = ""
        for ((ship, count) in ships) out += ship + count
        watcher?.invoke(out)
        return out
    }
}

// Nothing here knows of threads.
object Weather {  // entity: singleton Weather lazy language
    private val reports: LinkedHashMap<String, Int> = LinkedHashMap()

    fun report(station: String) {
        reports[station] = 1
    }

    fun forget(station: String) {
        reports.remove(station)
    }

    fun all(): Int = reports.size
}
