package harbour

import harbour.tides.TideTable

class Pilot(private val name: String, private val draught: Int = 1) {
    fun advice(hour: Int): String {
        val deep = TideTable.height(hour) > draught
        return name + (if (deep) " sails at " else " waits at ") + hour
    }
}

class Ferry {
    fun departure(): Int {
        var hour = 0
        while (TideTable.height(hour) < 6) {
            hour++
        }
        return hour
    }
}

class Office {
    private val pilots = mutableListOf<Pilot>()

    fun hire(name: String, draught: Int) {
        pilots.add(Pilot(name, draught))
    }

    fun hire(name: String) {
        pilots.add(Pilot(name))
    }

    fun day(): String = pilots.joinToString("\n") { it.advice(4) } + "\nferry at " + Ferry().departure()
}

fun main() {
    val office = Office()
    office.hire("Wren", 8)
    office.hire("Tern")
    println(office.day())
    println("${TideTable.asked} looks")
}
