// A lock that is only tried, and given back in the last part of a try.
package duty

import java.util.concurrent.locks.ReentrantLock

object SlipGauge {  // entity: singleton SlipGauge lazy language
    private val lock = ReentrantLock()  // harmless: lock
    private var depth = 0
    private var draught = 0

    fun set(newDepth: Int, newDraught: Int) {
        lock.lock()
        try {
            depth = newDepth
            draught = newDraught
        } finally {
            lock.unlock()
        }
    }

    // Near miss: whoever gives it back held it.
    fun readDepth(): Int {
        if (lock.tryLock()) {
            try {
                return depth  // near: thread.mixed-guard
            } finally {
                lock.unlock()
            }
        }
        return -1
    }

    fun readDraught(): Int {
        try {
            return draught  // finding: thread.mixed-guard
        } finally {
            println("read")
        }
    }
}
