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
    TideTable.get().add(3)
    println(TideTable.get() === TideTable.get())
}
