package harbour.office

// A language object with state.
object TicketOffice {  // entity: singleton TicketOffice eager language
    private var next = 1

    fun draw(): Int {
        next += 1  // finding: thread.lost-update
        return next
    }
}

// An unguarded check in the companion.
class BerthBook private constructor() {  // entity: singleton BerthBook lazy none
    private val berths = HashMap<String, Int>()

    companion object {
        private var instance: BerthBook? = null

        fun getInstance(): BerthBook {
            if (instance == null) {
                instance = BerthBook()  // finding: thread.unguarded-creation
            }
            return instance!!
        }
    }

    fun assign(ship: String, berth: Int) {
        berths[ship] = berth  // finding: lifetime.grows-forever
    }

    fun count() = berths.size
}

// Double-checked over a volatile slot, written as one expression.
class TideTable private constructor() {  // entity: singleton TideTable lazy double-check
    private var level = 0

    companion object {
        @Volatile private var instance: TideTable? = null

        fun get(): TideTable = instance ?: synchronized(this) {
            instance ?: TideTable().also { instance = it }  // finding: init.lazy-needless
        }
    }

    @Synchronized fun rise(): Int {
        level += 1
        return level
    }
}

class Crane {
    var loads = 0
    fun lift() { loads++ }
}

val crane: Crane by lazy { Crane() }  // entity: shared-instance crane lazy language
private var count = 0  // entity: global-variable count eager language
const val LIMIT = 12  // harmless: LIMIT

fun counted(): Int {
    count += 1  // finding: thread.lost-update
    return count
}

enum class Flag { UP, DOWN }
