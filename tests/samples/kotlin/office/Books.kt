package harbour.office

class Crane {
    var loads = 0
    fun lift() { loads++ }
}

val crane: Crane by lazy { Crane() }  // entity: shared-instance crane lazy language
private var count = 0  // entity: global-variable count eager language
const val LIMIT = 12  // harmless: LIMIT

fun counted(): Int {
    count += 1
    return count
}

enum class Flag { UP, DOWN }
