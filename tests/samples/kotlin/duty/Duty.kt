// Guards, starts, lists and ties of a harbour on duty.
package duty

import java.io.File
import java.io.IOException

object Barograph {  // entity: singleton Barograph lazy language
    private var pressure = 0

    init {
        try {
            pressure = File("pressure").readText().length
        } catch (failure: IOException) {  // finding: init.failure-swallowed
        }
    }

    fun fall() {
        pressure = pressure - 1
    }
}

/** There is only one office in the harbour. */
class Office {  // finding: single.meant-single
    private var opened = 0

    fun open() {
        opened = opened + 1
    }
}
