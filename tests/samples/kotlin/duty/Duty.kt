// Guards, starts, lists and ties of a harbour on duty.
package duty

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

// Who is listed is told of each signal.
interface Keeper {
    fun heard(signal: Int)
}

object SignalMast {  // entity: singleton SignalMast eager language
    private val keepers = mutableListOf<Keeper>()

    fun attach(keeper: Keeper) {
        keepers.add(keeper)
    }

    fun detach(keeper: Keeper) {
        keepers.remove(keeper)
    }

    fun raise(signal: Int) {
        for (keeper in keepers) {  // finding: lifetime.notify-while-changing
            keeper.heard(signal)
        }
    }

    // Near miss: over a copy.
    fun lower(signal: Int) {
        for (keeper in keepers.toList()) {  // near: lifetime.notify-while-changing
            keeper.heard(signal)
        }
    }
}

class Lookout : Keeper {
    private var last = 0

    init {
        SignalMast.attach(this)  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
    }

    override fun heard(signal: Int) {
        last = signal
    }

    fun close() {
        last = 0
    }
}

// Near miss: taken out at its end. It takes itself out while the list is walked, too.
class Bosun : Keeper {
    init {
        SignalMast.attach(this)  // near: lifetime.dangling-subscriber
    }

    override fun heard(signal: Int) {
        close()
    }

    fun close() {
        SignalMast.detach(this)
    }
}

// Registered when it is made and again by a method.
class Steward : Keeper {
    private var last = 0

    init {
        SignalMast.attach(this)
    }

    fun wake() {
        SignalMast.attach(this)  // finding: lifetime.duplicate-subscription
    }

    override fun heard(signal: Int) {
        last = signal
    }

    fun close() {
        SignalMast.detach(this)
    }
}

// Only ever added to; near miss: given a limit.
object Logbook {  // entity: singleton Logbook eager language
    private val lines = mutableListOf<String>()
    private val recent = mutableListOf<String>()

    fun write(line: String) {
        lines.add(line)  // finding: lifetime.grows-forever
    }

    @Synchronized
    fun keep(line: String) {
        recent.add(line)  // near: lifetime.grows-forever
        if (recent.size > 20) {
            recent.removeAt(0)
        }
    }
}

// Reads the environment; the failure is dropped.
object NamePlate {  // entity: singleton NamePlate eager language
    private var name = System.getenv("HARBOUR")  // finding: init.reads-environment

    fun rename(newName: String) {
        name = newName
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

fun quay(permit: Permit): Boolean {
    return gate(permit)
}

fun pier(permit: Permit): Boolean {  // finding: coupling.long-handoff
    return quay(permit)
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
