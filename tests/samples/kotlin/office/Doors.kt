package office

// One for each quay.
object Quays {  // entity: registry Quays lazy language
    private val quays = mutableMapOf<String, Quay>()

    fun quay(name: String): Quay = quays.getOrPut(name) { Quay() }
}

class Quay {
    var ships = 0
}

// Constants with state of their own.
enum class Flag(var shown: Boolean) {
    NORTH(false),  // entity: shared-instance NORTH eager language
    SOUTH(false);  // entity: shared-instance SOUTH eager language

    fun show() {
        shown = true
    }
}

class HornTest {
    val quay = Quays.quay("north")

}
