object TideTable {
    private var levels = listOf(3, 5, 4)

    fun raise(by: Int) {
        levels = levels.map { it + by }
    }

    fun level(hour: Int): Int = levels[hour % 3]
}

fun mayEnter(draught: Int, hour: Int): Boolean = TideTable.level(hour) > draught

fun flood() {
    TideTable.raise(1)
}

fun main() {
    flood()
    println(mayEnter(3, 0))
}
