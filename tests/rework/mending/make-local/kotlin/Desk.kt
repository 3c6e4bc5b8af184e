private var served = 2

class Desk {
    private val open = 1

    fun serve(ships: Int) {
        served += ships * open
    }

    fun all(): Int = served
}

fun main() {
    val desk = Desk()
    desk.serve(3)
    println(desk.all())
}
