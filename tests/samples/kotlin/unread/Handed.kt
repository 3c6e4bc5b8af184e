// What is there is handed out at once; looked for again under the lock.
class Slip private constructor() {  // entity: singleton Slip lazy double-check
    private var ships = 0

    fun haul() {
        ships = 1
    }

    companion object {
        @Volatile
        private var slip: Slip? = null

        fun slip(): Slip {
            slip?.let { return it }
            synchronized(this) {
                slip?.let { return it }
                val made = Slip()
                slip = made  // finding: init.lazy-needless
                return made
            }
        }
    }
}
