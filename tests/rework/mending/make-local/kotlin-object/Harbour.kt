class TideTable private constructor(private var first: Int) {
    fun height(day: Int): Int = first + day

    fun raise(by: Int) {
        first += by
    }

    companion object {
        private val table = TideTable(4)

        /** The one that there is. */
        fun get(): TideTable {
            return table
        }
    }
}

class Desk {
    private var entered = 0

    fun enter(day: Int): Int {
        entered++
        TideTable.get().raise(1)
        return TideTable.get().height(day) + entered
    }
}

fun main() {
    val desk = Desk()
    println(desk.enter(1) + desk.enter(2))
}
