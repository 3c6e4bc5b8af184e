// One object, for whoever comes: what it keeps is made on first use, and by nobody's lock.
class Ledger {
    var lines = 0
    fun write() { lines++ }
}

object Berths {  // entity: singleton Berths lazy language
    private var ledger: Ledger? = null

    @Volatile
    private var spare: Ledger? = null

    fun ledger(): Ledger {
        if (ledger == null) {
            ledger = Ledger()  // finding: thread.unguarded-creation
        }
        return ledger!!
    }

    fun useSpare() {
        if (spare != null) return
        spare = Ledger()
    }
}

class Clerk {
    fun work() {
        Berths.ledger().write()  // near: coupling.hidden-dependency
        Berths.useSpare()
    }
}
