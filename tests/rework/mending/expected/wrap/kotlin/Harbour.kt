object Tides {
    private var first = 4

    fun height(day: Int): Int = first + day

    fun raise(by: Int) {
        first += by
    }

    fun forget() {
        first = 0
    }
}

open class TidesWrapper {
    open fun height(day: Int): Int {
        return Tides.height(day)
    }

    open fun raise(by: Int) {
        Tides.raise(by)
    }
}

class Pilot(private val name: String, private val tidesWrapper: TidesWrapper) {
    fun mayEnter(draught: Int, day: Int): Boolean {
        tidesWrapper.raise(1)
        return tidesWrapper.height(day) > draught && name.isNotEmpty()
    }
}

fun main() {
    println(Pilot("first", tidesWrapper = TidesWrapper()).mayEnter(3, 1))
}
