package harbour.tides

object TideTable {
    var asked = 0
        private set

    fun height(hour: Int): Int {
        asked++
        return 3 + hour % 6
    }
}
