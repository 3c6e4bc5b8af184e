import java.io.File
import java.io.IOException

// Guarded when it is written, not when it is read; the list leaves from under its lock.
object TideBoard {  // entity: singleton TideBoard eager language
    private val gate = Any()  // harmless: gate
    private var level = 0
    private val notes = mutableListOf<String>()

    fun set(newLevel: Int) {
        synchronized(gate) { level = newLevel }
    }

    fun read(): Int {
        return level  // finding: thread.mixed-guard
    }

    fun note(text: String) {
        synchronized(gate) { notes.add(text) }
    }

    fun clear() {
        synchronized(gate) { notes.clear() }
    }

    fun all(): MutableList<String> {
        synchronized(gate) {
            return notes  // finding: thread.leaks-internals
        }
    }

    // Near miss: a copy.
    fun copy(): List<String> {
        synchronized(gate) {
            return notes.toList()  // near: thread.leaks-internals
        }
    }
}

// A look and a change, in two steps; near miss: under one lock.
object Moorings {  // entity: singleton Moorings eager language
    private val taken = mutableMapOf<String, String>()
    private val asked = mutableMapOf<String, String>()

    fun take(berth: String, ship: String): Boolean {
        if (taken.containsKey(berth)) {  // finding: thread.check-then-act
            return false
        }
        taken.put(berth, ship)  // finding: thread.unguarded-state
        return true
    }

    fun leave(berth: String) {
        taken.remove(berth)
    }

    @Synchronized
    fun ask(berth: String, ship: String) {
        if (!asked.containsKey(berth)) {
            asked.put(berth, ship)
        }
    }

    @Synchronized
    fun answer(berth: String) {
        asked.remove(berth)
    }
}

object Barograph {  // entity: singleton Barograph eager language // finding: init.eager-heavy
    private var pressure = 0

    init {
        try {
            pressure = File("pressure").readText().length
        } catch (failure: IOException) {  // finding: init.failure-swallowed
        }
    }

    fun fall() {
        pressure = pressure - 1  // finding: thread.lost-update
    }
}

// Makes its own helper that reads files; near miss: it is handed in.
class ChartStore {
    fun depth(place: String): Int {
        return File(place).readText().length
    }
}

class Navigator {
    private val store = ChartStore()  // finding: coupling.fixed-collaborator

    fun depth(): Int {
        return store.depth("roads")
    }
}

class Mate(private val store: ChartStore) {
    fun depth(): Int {
        return store.depth("bay")
    }
}

// Passed through three functions that do nothing with it.
class Permit {
    fun valid(): Boolean {
        return true
    }
}

fun check(permit: Permit): Boolean {
    return permit.valid()
}

fun gate(permit: Permit): Boolean {
    return check(permit)
}

/** There is only one office in the harbour. */
class Office {  // finding: single.meant-single
    private var opened = 0

    fun open() {
        opened = opened + 1
    }
}

fun day() {
    Thread {
        TideBoard.set(3)
        Moorings.take("north", "Heron")
    }.start()
    val first = Office()
    val second = Office()
    first.open()
    second.open()
}
