// What Java code reaches of Kotlin's, and Kotlin of Java's; what later callers pass, and what is kept although it is meant to go.
package harbour.mixed

import java.lang.ref.WeakReference

class Lamp(val height: Int) {
    fun use() {}
}

class Pier private constructor() { // entity: singleton Pier eager language
    fun moor() {}

    companion object {
        private val one = Pier()
        fun get(): Pier = one
    }
}

object Tower { // entity: singleton Tower lazy language
    private var lamp: Lamp? = null
    private var mast: Lamp? = null
    var level = 0

    fun lit(height: Int): Lamp {
        if (lamp == null || height > 40) { // finding: init.arguments-ignored
            lamp = Lamp(height)
        }
        return lamp as Lamp
    }

    // Near miss: all pass the same thing.
    fun raised(height: Int): Lamp {
        if (mast == null) { // near: init.arguments-ignored
            mast = Lamp(height) // finding: thread.unguarded-creation
        }
        return mast as Lamp
    }

    fun sound(buoy: Buoy) {
        level = buoy.depth
    }
}

class Berth {
    fun close() {}
}

object Board { // entity: singleton Board lazy language
    private var berth: Berth? = null

    fun show(given: Berth?) {
        berth = given
    }

    fun wipe() {
        berth?.close()
    }
}

class Desk(private val berth: WeakReference<Berth>) {
    fun open() {
        Board.show(berth.get()) // finding: lifetime.captured-short-lived  // near: coupling.hidden-dependency
    }
}
