// Piers, cranes and boats of the harbour: further forms, and near misses beside them.
package piers

import java.io.File
import java.io.FileInputStream
import java.util.concurrent.atomic.AtomicInteger
import kotlin.concurrent.thread
import piers.ledgers.fees

// Throws where it stands.
class Scale {
    private var tons: Int = 0

    constructor() {
        this.tons = if (File("scale").exists()) 1 else 0
        if (this.tons == 0) {
            throw IllegalStateException("no scale")
        }
    }

    fun load() {
        this.tons = 2
    }
}

val scale: Scale = Scale()  // entity: shared-instance scale eager language  // near: init.may-throw

// Needs what stands further down; near miss: asked for when it is there.
class Stairs {
    private var steps: Int = 0

    constructor() {
        this.steps = heights["stairs"] ?: 0
    }

    fun climb() {
        this.steps = heights["stairs"] ?: 0  // near: init.order-within-class
    }
}

val stairs: Stairs = Stairs()  // finding: init.order-within-class  // entity: shared-instance stairs eager language
private val heights: MutableMap<String, Int> = mutableMapOf<String, Int>()  // entity: global-variable heights eager language

fun raiseStairs(by: Int) {
    heights["stairs"] = by
}

// Others run while it is made; near misses: nothing runs in between, or what is promised is kept.
class Radio {
    private var channel: Int = 16

    fun tune(channel: Int) {
        this.channel = channel
    }
}

private var radioNow: Radio? = null  // entity: shared-instance radioNow lazy none
private var sonarNow: Radio? = null  // entity: shared-instance sonarNow lazy none
private var radarNow: Radio? = null  // entity: shared-instance radarNow lazy none

suspend fun radio(): Radio {
    if (radioNow == null) {
        val channel = askForChannel()  // finding: thread.await-gap
        radioNow = Radio()  // finding: thread.unguarded-creation
        radioNow!!.tune(channel)
    }
    return radioNow!!
}

suspend fun sonar(): Radio {
    val channel = askForChannel()  // near: thread.await-gap
    if (sonarNow == null) {
        sonarNow = Radio()  // finding: thread.unguarded-creation
        sonarNow!!.tune(channel)
    }
    return sonarNow!!
}

suspend fun radar(): Radio {
    if (radarNow == null) {
        radarNow = askForRadar()  // finding: thread.unguarded-creation thread.await-gap
    }
    return radarNow!!  // near: thread.await-gap
}

suspend fun askForRadar(): Radio {
    askForChannel()
    return Radio()
}

suspend fun askForChannel(): Int {
    return 16
}

// Passed on by four; near misses: used on the way, or made there.
class Papers {
    fun inOrder(): Boolean {
        return true
    }
}

fun stamp(papers: Papers): Boolean {
    return papers.inOrder()
}

fun clerk(papers: Papers): Boolean {
    return stamp(papers)
}

fun counter(papers: Papers): Boolean {
    return clerk(papers)
}

fun gate(papers: Papers): Boolean {  // near: coupling.long-handoff
    return papers.inOrder() && counter(papers)
}

// Threads: what is sound, beside what is not.
class Windows private constructor() {  // near: single.subclassable single.open-constructor  // entity: singleton Windows lazy double-check
    private val panes = mutableListOf<String>()

    init {
        for (i in 0 until 9) {
            panes.add("pane $i")
        }
    }

    fun take(): String {
        synchronized(gate) {
            return panes.removeAt(0)  // near: thread.mixed-guard thread.check-then-act
        }
    }

    companion object {
        @Volatile private var one: Windows? = null
        private val gate = Any()  // harmless: gate

        fun get(): Windows {
            if (one == null) {
                synchronized(gate) {  // near: thread.wrong-lock thread.lock-every-access init.lazy-needless
                    if (one == null) {  // near: thread.double-check-incomplete
                        one = Windows()  // near: thread.double-check-unsound thread.unguarded-creation
                    }
                }
            }
            return one!!
        }
    }
}

class Doors private constructor() {  // near: single.subclassable  // entity: singleton Doors lazy lock
    private val hinges = mutableListOf<String>()
    private val opened = AtomicInteger()

    init {
        for (i in 0 until 9) {
            hinges.add("hinge $i")
        }
    }

    fun open() {
        opened.incrementAndGet()  // near: thread.lost-update thread.unguarded-state
    }

    fun inner(): MutableList<String> {
        synchronized(gate) {
            return hinges  // finding: thread.leaks-internals
        }
    }

    companion object {
        private var one: Doors? = null
        private val gate = Any()  // harmless: gate

        fun get(): Doors {
            synchronized(gate) {  // near: thread.wrong-lock thread.lock-every-access init.lazy-needless
                if (one == null) {  // near: thread.double-check-incomplete
                    one = Doors()  // near: thread.double-check-unsound thread.unguarded-creation
                }
                return one!!
            }
        }
    }
}

// Tested before the lock only.
class Shutters private constructor() {  // entity: singleton Shutters lazy double-check-unsound
    private var closed = 0

    fun close() {
        closed = 1
    }

    companion object {
        @Volatile private var one: Shutters? = null
        private val gate = Any()  // harmless: gate

        fun get(): Shutters {
            if (one == null) {  // finding: thread.double-check-incomplete
                synchronized(gate) {
                    one = Shutters()  // finding: init.lazy-needless
                }
            }
            return one!!
        }
    }
}

// Read outside the lock, and not volatile.
class Blinds private constructor() {  // entity: singleton Blinds lazy double-check-unsound
    private var drawn = 0

    fun draw() {
        drawn = 1
    }

    companion object {
        private var one: Blinds? = null
        private val gate = Any()  // harmless: gate

        fun get(): Blinds {
            if (one == null) {  // finding: thread.double-check-unsound
                synchronized(gate) {
                    if (one == null) {
                        one = Blinds()  // finding: init.lazy-needless
                    }
                }
            }
            return one!!
        }
    }
}

// A lock in each call.
class Fuse private constructor() {  // entity: singleton Fuse lazy lock
    private var burnt = 0

    fun burn() {
        burnt = 1
    }

    companion object {
        private var one: Fuse? = null

        fun get(): Fuse {
            val lock = Any()
            synchronized(lock) {  // finding: thread.wrong-lock
                if (one == null) {
                    one = Fuse()  // finding: init.lazy-needless
                }
                return one!!
            }
        }
    }
}

// A lock for each look, in a loop.
class Ropes private constructor() {  // entity: singleton Ropes lazy lock
    private val coils = mutableListOf<String>()

    init {
        for (i in 0 until 4) {
            coils.add("coil $i")
        }
    }

    fun cut(coil: String) {
        synchronized(gate) {
            coils.remove(coil)
        }
    }

    companion object {
        private var one: Ropes? = null
        private val gate = Any()  // harmless: gate

        fun get(): Ropes {
            synchronized(gate) {
                if (one == null) {
                    one = Ropes()
                }
                return one!!
            }
        }
    }
}

// Stored and read back; near miss: what is no one's only one.
class Medal private constructor() : java.io.Serializable {  // finding: single.revivable  // entity: singleton Medal eager language
    private var worn = 0

    fun wear() {
        worn = 1
    }

    companion object {
        private val medal = Medal()

        fun medal(): Medal = medal
    }
}

// In the right order.
class Steps private constructor() {  // entity: singleton Steps eager language
    private var climbed = heights[0]

    fun climb() {
        climbed = heights[1]
    }

    companion object {
        private val heights = listOf(1, 2, 3)  // harmless: heights
        private val one = Steps()  // near: init.order-within-class

        fun get(): Steps = one
    }
}

// Never leaves the list.
interface Listening {
    fun heard(what: String)
}
