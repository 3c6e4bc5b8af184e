package harbour.accessors

// Read and set by accessors that take the lock.
object Berth {  // entity: singleton Berth lazy language
    var ships = 0
        get() = synchronized(this) { field }
        private set(value) = synchronized(this) { field = value }

    fun moor(count: Int) {
        Berth.ships = count  // near: thread.mixed-guard
    }
}

// Entries are taken out by what walks over them.
class Horn {
    companion object {
        private var pending: MutableCollection<String> = ArrayList()  // entity: static-field pending eager language
    }

    fun sound(text: String) {
        pending.add(text)  // near: lifetime.grows-forever
    }

    fun flush() {
        val left = pending.iterator()
        while (left.hasNext()) {
            println(left.next())
            left.remove()
        }
    }
}

fun work() {
    Thread { Berth.moor(3) }.start()
    println(Berth.ships)
    Horn().sound("fog")
}
