// Code that is easily passed over: accessors of a property with a value, entries with a body, a function that is called suspend.
object Panel {  // entity: singleton Panel lazy language
    var lights = 0
    fun light() {
        lights += 1
    }
}

class Bridge {
    var style: String? = null
        set(value) {
            Panel.light()  // near: coupling.hidden-dependency
            field = value
        }
    var width: Int = 1
        get() = field + Panel.lights
}

interface Pump {
    var full: Boolean
    fun suspend(still: Boolean) {
        full = still
        Panel.light()
    }
}

enum class Signal(val weight: Int) {
    RED(1) {
        override fun show() {
            Panel.light()
        }
    };

    abstract fun show()
}

// Filled whenever an object is made, which is not when the class is loaded.
class Keeper {
    companion object {
        private var last: Keeper? = null  // entity: ambient last elsewhere none
        fun newest(): Keeper? = last
    }
    var rounds = 0

    init {
        last = this
    }

    fun walk() {
        rounds += 1
    }
}

class Chart {
    var lines = 0
    fun draw() {
        lines += 1
    }
}

val chart by lazy {  // entity: shared-instance chart lazy language
    val made = Chart()
    made.draw()
    made
}

fun redraw() {
    chart.draw()
}

// What is assigned to may stand behind several members.
object Deck {  // entity: singleton Deck lazy language
    var lamp: Lamp? = null
}

class Lamp {
    var on = false
}

class Mate {
    fun light() {
        Deck.lamp?.on = true  // near: coupling.hidden-dependency
    }
}
