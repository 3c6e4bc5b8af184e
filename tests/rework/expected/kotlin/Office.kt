package harbour

import harbour.tides.TideTable

class Pilot(private val name: String, private val draught: Int = 1, private val tideTable: TideTable) {
    fun advice(hour: Int): String {
        val deep = tideTable.height(hour) > draught
        return name + (if (deep) " sails at " else " waits at ") + hour
    }
}

class Ferry(private val tideTable: TideTable) {
    fun departure(): Int {
        var hour = 0
        while (tideTable.height(hour) < 6) {
            hour++
        }
        return hour
    }
}

class Office(private val tideTable: TideTable) {
    private val pilots = mutableListOf<Pilot>()

    fun hire(name: String, draught: Int) {
        pilots.add(Pilot(name, draught, tideTable = tideTable))
    }

    fun hire(name: String) {
        pilots.add(Pilot(name, tideTable = tideTable))
    }

    fun day(): String = pilots.joinToString("\n") { it.advice(4) } + "\nferry at " + Ferry(tideTable = tideTable).departure()
}

fun main() {
    val office = Office(tideTable = TideTable)
    office.hire("Wren", 8)
    office.hire("Tern")
    println(office.day())
    println("${TideTable.asked} looks")
}
