package office

/** The water's height, day by day. */
class TideTable(private var first: Int = 4) {
    fun height(day: Int): Int = first + day

    fun raise(by: Int) {
        first += by
    }

    fun forget() {
        first = 0
    }
}

class Pilot(private val tides: TideTable) {
    fun mayEnter(draught: Int, day: Int): Boolean {
        tides.raise(1)
        return tides.height(day) > draught
    }
}

fun deepEnough(tides: TideTable?, draught: Int): Boolean = (tides?.height(0) ?: 0) > draught

fun main() {
    val tides = TideTable()
    println(Pilot(tides).mayEnter(3, 1) && deepEnough(tides, 4))
}
