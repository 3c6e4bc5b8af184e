package scratch

class Mooring {
    fun pull() {}
}

// What stands at a position is found by no key.
class Winch {
    fun wind(count: Int) {
        lines = arrayOfNulls<Mooring>(count)
        for (i in 0 until count) lines[i] = Mooring()
    }

    companion object {
        private lateinit var lines: Array<Mooring?>  // entity: static-field lines lazy none
    }
}
