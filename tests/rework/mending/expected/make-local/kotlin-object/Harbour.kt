class TideTable(private var first: Int) {
    fun height(day: Int): Int = first + day

    fun raise(by: Int) {
        first += by
    }
}

class Desk {
    private var tideTable: TideTable = TideTable(4)
    private var entered = 0

    fun enter(day: Int): Int {
        entered++
        tideTable.raise(1)
        return tideTable.height(day) + entered
    }
}

fun main() {
    val desk = Desk()
    println(desk.enter(1) + desk.enter(2))
}
