import java.io.File
import java.io.FileInputStream
import java.util.concurrent.atomic.AtomicInteger
import kotlin.concurrent.thread
import piers.ledgers.fees

// One is handed out, and a helper makes another.
class Capstan {  // entity: singleton Capstan lazy none  // finding: single.open-constructor
    companion object {
        private var one: Capstan? = null

        fun capstan(): Capstan {
            if (Capstan.one == null) {
                Capstan.one = Capstan()  // finding: thread.unguarded-creation
            }
            return Capstan.one!!
        }
    }

    private var turns: Int = 0

    fun turn() {
        this.turns = 1
    }
}

// A circle of three; near misses: what is called later is no part of the making.
class Crane {  // entity: singleton Crane lazy none
    companion object {
        private var one: Crane? = null

        fun crane(): Crane {
            if (Crane.one == null) {
                Crane.one = Crane()  // finding: thread.unguarded-creation init.cycle
            }
            return Crane.one!!
        }
    }

    var load: Int = 0

    constructor() {  // finding: single.open-constructor
        this.load = Winch.winch().rope  // finding: coupling.hidden-dependency
    }

    fun turn() {
        this.load = 1
    }
}

class Winch {  // entity: singleton Winch lazy none
    companion object {
        private var one: Winch? = null

        fun winch(): Winch {
            if (Winch.one == null) {
                Winch.one = Winch()  // finding: thread.unguarded-creation
            }
            return Winch.one!!
        }
    }

    var rope: Int = 0

    constructor() {  // finding: single.open-constructor
        this.rope = Hook.hook().weight  // finding: coupling.hidden-dependency
    }
}

class Hook {  // entity: singleton Hook lazy none
    companion object {
        private var one: Hook? = null

        fun hook(): Hook {
            if (Hook.one == null) {
                Hook.one = Hook()  // finding: thread.unguarded-creation
            }
            return Hook.one!!
        }
    }

    var weight: Int = 0

    constructor() {  // finding: single.open-constructor
        this.weight = Crane.crane().load  // finding: coupling.hidden-dependency
    }
}

// Asks for itself through a helper.
class LogBook {  // entity: singleton LogBook lazy none
    companion object {
        private var one: LogBook? = null

        fun book(): LogBook {
            if (LogBook.one == null) {
                LogBook.one = LogBook()  // finding: thread.unguarded-creation
            }
            return LogBook.one!!
        }
    }

    private var lines: Int = 0

    constructor() {  // finding: single.open-constructor
        greet()
    }

    fun write() {
        this.lines = 1
    }
}

fun greet() {
    LogBook.book().write()  // finding: init.reentrant
}

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

val scale: Scale = Scale()  // finding: init.may-throw  // entity: shared-instance scale eager language

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
private val heights: MutableMap<String, Int> = mutableMapOf<String, Int>()  // entity: global-variable heights elsewhere none

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
private var radarNow: Radio? = null  // entity: ambient radarNow elsewhere none

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
        radarNow = askForRadar()
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

class Tides {
    private var file: FileInputStream? = null

    fun open(name: String) {
        this.file = FileInputStream(name)  // near: lifetime.never-released
    }

    fun close() {
        this.file!!.close()
    }
}

// Walks over the list itself, and registers whoever asks; near misses: over a copy, and with a look first.
class Bells {
    private var ringers: MutableList<Ringer> = mutableListOf()
    private var players: MutableList<Player> = mutableListOf()

    fun add(ringer: Ringer) {
        this.ringers.add(ringer)
    }

    fun remove(ringer: Ringer) {
        this.ringers.remove(ringer)
    }

    fun ring() {
        for (ringer in this.ringers) {  // finding: lifetime.notify-while-changing
            ringer.ring()
        }
    }

    fun addPlayer(player: Player) {
        if (!this.players.contains(player)) {  // finding: thread.check-then-act
            this.players.add(player)  // near: lifetime.duplicate-subscription lifetime.grows-forever
        }
    }

    fun removePlayer(player: Player) {
        this.players.remove(player)
    }

    fun play() {
        for (player in this.players.toList()) {  // near: lifetime.notify-while-changing
            player.play()
        }
    }

    fun count(): Int {
        var strokes = 0
        for (player in this.players) {  // near: lifetime.notify-while-changing
            strokes += player.strokes
        }
        return strokes
    }
}

val bells: Bells = Bells()  // entity: shared-instance bells eager language

class Ringer {
    constructor() {
        bells.add(this)  // finding: coupling.hidden-dependency
    }

    fun again() {
        bells.add(this)  // finding: lifetime.duplicate-subscription
    }

    fun close() {
        bells.remove(this)
    }

    fun ring() {
        this.close()
    }
}

class Player {
    var strokes: Int = 3

    constructor() {
        bells.addPlayer(this)  // near: lifetime.dangling-subscriber
    }

    fun again() {
        bells.addPlayer(this)  // near: lifetime.duplicate-subscription
    }

    fun close() {
        bells.removePlayer(this)
    }

    fun play() {
        this.close()
    }
}

// Keeps the caller's object; near misses: only what it says, or for a while.
class Porter {
    private var caller: Caller? = null
    private var last: String = ""
    private var seen: MutableList<String> = mutableListOf()

    fun keep(caller: Caller) {
        this.caller = caller
    }

    fun note(caller: Caller) {
        this.last = caller.ship
    }

    fun write(caller: Caller) {
        this.seen.add(caller.ship)  // near: lifetime.grows-forever
        if (this.seen.size > 9) {  // finding: thread.check-then-act
            this.seen.removeAt(0)
        }
    }
}

val porter: Porter = Porter()  // entity: shared-instance porter eager language

class Caller {
    var ship: String = ""

    constructor(ship: String) {
        this.ship = ship
    }

    fun enter() {
        porter.keep(this)  // finding: coupling.hidden-dependency lifetime.captured-short-lived
    }

    fun passBy() {
        porter.note(this)  // near: lifetime.captured-short-lived
        porter.write(this)  // near: lifetime.captured-short-lived
    }
}

fun receive(ship: String) {
    val caller = Caller(ship)
    caller.enter()
    caller.passBy()
}

// Used after its end; near misses: opened again, or used before.
class Sluice {
    private var isOpen: Boolean = true
    private var level: Int = 0

    fun close() {
        this.isOpen = false
    }

    fun open() {
        this.isOpen = true
    }

    fun measure(): Int {
        this.level += 1
        return this.level
    }
}

val sluice: Sluice = Sluice()  // entity: shared-instance sluice eager language

fun day(): Int {
    sluice.close()
    sluice.open()
    var level = sluice.measure()  // near: lifetime.used-after-teardown
    level += sluice.measure()  // near: lifetime.used-after-teardown
    sluice.close()
    return level
}

// Nothing to hand in; near misses: no state, or one caller.
class Tickets {  // finding: coupling.static-only-api  // entity: static-holder Tickets eager language
    companion object {
        private var sold: Int = 0

        fun sell() {
            Tickets.sold = 1
        }

        fun count(): Int {
            return Tickets.sold
        }
    }
}

class Knots {  // near: coupling.static-only-api
    companion object {
        fun bowline(turns: Int): Int {
            return turns + 1
        }

        fun hitch(turns: Int): Int {
            return turns + 2
        }
    }
}

class Bollards {  // near: coupling.static-only-api  // entity: static-holder Bollards eager language
    companion object {
        private var used: Int = 0

        fun use() {
            Bollards.used = 1
        }
    }
}

class Sailor {
    fun tie(): Int {
        Bollards.use()  // finding: coupling.hidden-dependency
        Tickets.sell()  // finding: coupling.hidden-dependency
        return Knots.bowline(2)
    }
}

class Rower {
    fun tie(): Int {
        return Knots.hitch(Tickets.count())
    }
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

class Depths {
    private var least: Int = 0

    fun measure() {
        this.least = 4
    }
}

class Channel {  // entity: singleton Channel lazy none  // finding: single.open-constructor
    companion object {
        private var one: Channel? = null

        fun channel(): Channel {
            if (Channel.one == null) {
                Channel.one = Channel()  // finding: thread.unguarded-creation
            }
            return Channel.one!!
        }
    }

    private var inner: Depths = Depths()

    fun capstan(): Capstan {
        return Capstan.capstan()
    }

}

// One slot for a family; near miss: one for each of it.
open class Raft {  // entity: singleton Raft lazy none  // finding: single.open-constructor
    companion object {
        internal var one: Raft? = null

        fun raft(): Raft {
            if (Raft.one == null) {
                Raft.one = Raft()  // finding: thread.unguarded-creation single.slot-shared-by-subclasses
            }
            return Raft.one!!
        }
    }

    private var logs: Int = 4

    fun sink() {
        this.logs = 0
    }
}

class WideRaft : Raft() {
    companion object {
        fun open() {
            Raft.one = WideRaft()  // finding: coupling.hidden-dependency single.replaceable
        }
    }

    fun load() {
        this.sink()
    }
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
            synchronized(gate) {  // finding: thread.lock-every-access
                if (one == null) {
                    one = Ropes()
                }
                return one!!
            }
        }
    }
}

class Rigger {
    fun week() {
        for (day in 0 until 7) {
            Ropes.get().cut("coil 1")  // finding: coupling.hidden-dependency
        }
        val doors = Doors.get()  // finding: coupling.hidden-dependency
        for (day in 0 until 7) {
            doors.open()
        }
    }
}

// Fields that two threads set.
object Signals {  // entity: singleton Signals eager language
    private var shown = ""
    @Volatile private var last = ""
    private val kept = mutableListOf<String>()
    private val gate = Any()  // harmless: gate

    fun show(flag: String) {
        shown = flag  // finding: thread.unguarded-state
    }

    fun shown(): String = shown

    fun keep(flag: String) {
        last = flag  // near: thread.unguarded-state
        synchronized(gate) {
            kept.add(flag)
        }
    }

    fun last(): String = last

    fun forget() {
        kept.clear()  // finding: thread.mixed-guard
    }

}

// A look and a change without a lock; near misses: under one, or by the table itself.
object Slips {  // entity: singleton Slips eager language
    private val taken = mutableMapOf<String, String>()
    private val given = mutableMapOf<String, String>()
    private val gate = Any()  // harmless: gate

    fun take(name: String) {
        if (!taken.containsKey(name)) {  // finding: thread.check-then-act
            taken[name] = name  // finding: thread.unguarded-state
        }
    }

    fun free(name: String) {
        taken.remove(name)
    }

    fun give(name: String) {
        synchronized(gate) {
            if (!given.containsKey(name)) {  // near: thread.check-then-act
                given[name] = name
            }
        }
    }

    fun back(name: String) {
        synchronized(gate) {
            given.remove(name)
        }
    }
}

class SignalMan {
    fun work() {  // finding: coupling.crowded-startup
        thread { Signals.show("A") }  // finding: coupling.hidden-dependency
        thread { Signals.keep(Signals.shown()) }
        thread { Signals.forget() }
        thread { Windows.get().take() }  // finding: coupling.hidden-dependency
        thread { Doors.get().open() }
        thread { Shutters.get().close() }  // finding: coupling.hidden-dependency
        thread { Blinds.get().draw() }  // finding: coupling.hidden-dependency
        thread { Fuse.get().burn() }  // finding: coupling.hidden-dependency
        thread { Rigger().week() }
        thread { Slips.free("a") }  // finding: coupling.hidden-dependency
        thread { Slips.back("a") }
        Slips.take("a")
        Slips.give("a")
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

// Each knows the other.
object Ledger {  // entity: singleton Ledger eager language
    private var sum = 0

    fun book(clerk: Clerk) {
        sum = sum + 1  // finding: thread.lost-update
        clerk.stamp()  // finding: coupling.cycle
    }

    fun sum(): Int = sum
}

class Clerk {
    private var stamped = 0

    fun work() {
        stamped = Ledger.sum()  // finding: coupling.hidden-dependency
    }

    fun stamp() {
        stamped = 0
    }
}

// Never leaves the list.
interface Listening {
    fun heard(what: String)
}

object Crier {  // entity: singleton Crier eager language
    private val listening = mutableListOf<Listening>()

    fun attach(one: Listening) {
        listening.add(one)
    }

}

class Drummer : Listening, AutoCloseable {
    private var beats = 0

    init {
        Crier.attach(this)  // finding: coupling.hidden-dependency lifetime.dangling-subscriber
    }

    override fun heard(what: String) {
        beats = what.length
    }

    override fun close() {
        beats = 0
    }
}
