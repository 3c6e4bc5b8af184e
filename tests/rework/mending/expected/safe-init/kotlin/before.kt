class TideTable private constructor() {
    private val rows = mutableListOf<Int>()

    fun add(row: Int) {
        rows.add(row)
    }

    companion object {
        private val table by lazy { TideTable() }

        fun get(): TideTable {
            return table
        }
    }
}

fun main() {
    TideTable.get().add(3)
    println(TideTable.get() === TideTable.get())
}
