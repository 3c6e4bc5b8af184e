// Quays, mast and gauges of the harbour: what the other folders do not show in Kotlin.
package quays

import java.io.File
import java.io.FileInputStream
import java.io.Serializable
import kotlin.concurrent.thread
import kotlinx.coroutines.delay
import quays.ledgers.HarbourDues

// Near miss: nobody else can make one.
class Lantern private constructor() {  // near: single.open-constructor  // entity: singleton Lantern eager language
    private var lit = 0

    fun light() {
        lit = 1
    }

    companion object {
        private val lantern = Lantern()

        fun lantern(): Lantern = lantern
    }
}

// Another takes its place.
open class Foghorn protected constructor() {  // entity: singleton Foghorn eager language  // finding: single.subclassable
    private var blown = 0

    companion object {
        private var horn: Foghorn = Foghorn()

        fun horn(): Foghorn = horn

        fun replace(other: Foghorn) {
            horn = other  // finding: single.replaceable
        }
    }
}

class LoudHorn : Foghorn() {
}

fun makeItLoud() {
    Foghorn.replace(LoudHorn())
}

// One slot for a family of classes.
open class Berth protected constructor() {  // entity: singleton Berth lazy lock  // finding: single.subclassable
    private var ships = 0

    companion object {
        internal var berth: Berth? = null  // finding: single.replaceable

        @Synchronized
        fun berth(): Berth {
            if (berth == null) {
                berth = Berth()  // finding: init.lazy-needless
            }
            return berth!!
        }

        @Synchronized
        fun put(other: Berth) {
            berth = other
        }
    }
}

// Only the first caller's name counts.
class Plate private constructor(private var name: String) {  // entity: singleton Plate lazy lock

    companion object {
        private var plate: Plate? = null

        @Synchronized
        fun plate(name: String): Plate {  // finding: init.arguments-ignored
            if (plate == null) {
                plate = Plate(name)
            }
            return plate!!
        }
    }
}

// Others run while it is made; near miss: nothing runs in between.
class Radio {
    private var channel = 16

}

private var radio: Radio? = null  // entity: shared-instance radio lazy none
private var sonar: Radio? = null  // entity: shared-instance sonar lazy none

suspend fun radio(): Radio {
    if (radio == null) {
        delay(1)  // finding: thread.await-gap
        radio = Radio()  // finding: thread.unguarded-creation
    }
    return radio!!
}

suspend fun sonar(): Radio {
    delay(1)  // near: thread.await-gap
    if (sonar == null) {
        sonar = Radio()  // finding: thread.unguarded-creation
    }
    return sonar!!
}

// Stored and read back it is a second one.
class Signet private constructor() : Serializable {  // entity: singleton Signet eager language // finding: single.revivable
    private var used = 0

    fun seal() {
        used = 1
    }

    companion object {
        private val signet = Signet()

        fun signet(): Signet = signet
    }
}

// Near miss: hands out the one that is there.
class Stamp private constructor() : Serializable {  // near: single.revivable  // entity: singleton Stamp eager language
    private var used = 0

    fun press() {
        used = 1
    }

    private fun readResolve(): Any = stamp

    companion object {
        private val stamp = Stamp()

        fun stamp(): Stamp = stamp
    }
}

// Asks for itself.
class DutyBook private constructor() {  // entity: singleton DutyBook lazy lock
    private var entries = 0

    init {
        begin()
    }

    private fun begin() {
        book().enter()  // finding: init.reentrant
    }

    fun enter() {
        entries++
    }

    companion object {
        private var book: DutyBook? = null

        @Synchronized
        fun book(): DutyBook {
            if (book == null) {
                book = DutyBook()
            }
            return book!!
        }
    }
}

// Throws while it is made.
class TideTable private constructor() {  // entity: singleton TideTable eager language
    private var rows = 0

    init {
        if (rows == 0) {
            throw IllegalStateException("no tides")
        }
    }

    fun rows(): Int = rows++

    companion object {
        private val table = TideTable()  // near: init.may-throw

        fun table(): TideTable = table
    }
}

// The slot is read outside the lock; near miss: it is volatile.
class Radar private constructor() {  // entity: singleton Radar lazy double-check-unsound
    private var sweeps = 0

    fun sweep() {
        sweeps = 1
    }

    companion object {
        private val gate = Any()  // harmless: gate
        private var radar: Radar? = null

        fun radar(): Radar {
            if (radar == null) {  // finding: thread.double-check-unsound
                synchronized(gate) {
                    if (radar == null) {
                        radar = Radar()  // finding: init.lazy-needless
                    }
                }
            }
            return radar!!
        }
    }
}

class Sonde private constructor() {  // entity: singleton Sonde lazy double-check
    private var drops = 0

    fun drop() {
        drops = 1
    }

    companion object {
        private val gate = Any()  // harmless: gate

        @Volatile
        private var sonde: Sonde? = null

        fun sonde(): Sonde {
            if (sonde == null) {  // near: thread.double-check-unsound
                synchronized(gate) {
                    if (sonde == null) {
                        sonde = Sonde()  // finding: init.lazy-needless
                    }
                }
            }
            return sonde!!
        }
    }
}

// A lock for each look, fetched in a loop.
class Tariff private constructor() {  // entity: singleton Tariff lazy lock
    private val rows = mutableListOf<String>()

    init {
        for (row in 1..3) {
            rows.add("row $row")
        }
    }

    @Synchronized
    fun drop(row: String) {
        rows.remove(row)
    }

    companion object {
        private val gate = Any()  // harmless: gate
        private var tariff: Tariff? = null

        fun tariff(): Tariff {
            synchronized(gate) {  // finding: thread.lock-every-access
                if (tariff == null) {
                    tariff = Tariff()
                }
                return tariff!!
            }
        }
    }
}

fun month() {
    for (day in 1..30) {
        Tariff.tariff().drop("row 1")
    }
}

// A thread is started on an object that is not complete; near miss: it is the last thing.
class EchoSounder {
    private var step: Int

    init {
        thread { sweep() }  // finding: thread.escaping-this
        step = 2
    }

    fun sweep() {
        step = 1
    }
}

// Opens what nothing closes; near miss: closed.
object EchoLog {  // entity: singleton EchoLog lazy language
    private var file: FileInputStream? = null

    fun begin() {
        file = FileInputStream("echoes")  // finding: lifetime.never-released
    }

    fun next(): Int = file?.read() ?: 0
}

// Keeps what is made for one visit.
object Gate {  // entity: singleton Gate lazy language
    private var visit: Visit? = null
    private var last = ""

    fun begin(newVisit: Visit) {
        visit = newVisit
    }

    fun note(ship: String) {
        last = ship
    }
}

class Visit(private val ship: String) {
    fun enter() {
        Gate.begin(this)  // finding: lifetime.captured-short-lived  // near: coupling.hidden-dependency
        Gate.note(ship)  // near: lifetime.captured-short-lived
    }
}

fun greet(ship: String) {
    val visit = Visit(ship)
    visit.enter()
}

// Used after its end; near miss: opened again.
object Gauge {  // entity: singleton Gauge lazy language
    private var level = 0
    private var open = true  // harmless: open

    fun close() {
        open = false
    }

    fun open() {
        open = true
    }

    fun measure(): Int {
        level = level + 1  // finding: thread.lost-update
        return level
    }
}

fun endOfDay(): Int {
    Gauge.close()
    return Gauge.measure()  // finding: lifetime.used-after-teardown
}

fun newDay(): Int {
    Gauge.close()
    Gauge.open()
    return Gauge.measure()  // near: lifetime.used-after-teardown
}

// Near miss: constants with members of their own, and nothing that changes.
enum class Edge {
    START {
        override fun opposite(): Edge = END
    },
    END {
        override fun opposite(): Edge = START
    };

    abstract fun opposite(): Edge
}
