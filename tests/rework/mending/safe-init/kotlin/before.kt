import kotlin.concurrent.thread

class TideTable private constructor() {
    private val rows = mutableListOf<Int>()

    fun add(row: Int) {
        rows.add(row)
    }

    companion object {
        private var table: TideTable? = null

        fun get(): TideTable {
            if (table == null) {
                table = TideTable()
            }
            return table!!
        }
    }
}

fun main() {
    val pilot = thread { TideTable.get().add(4) }
    TideTable.get().add(3)
    pilot.join()
    println(TideTable.get() === TideTable.get())
}
