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

class Pilot(private val name: String) {
    fun mayEnter(draught: Int, day: Int): Boolean {
        Tides.raise(1)
        return Tides.height(day) > draught && name.isNotEmpty()
    }
}

fun main() {
    println(Pilot("first").mayEnter(3, 1))
}
