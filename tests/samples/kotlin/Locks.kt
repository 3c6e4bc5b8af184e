// Locks and collections of the platform under the language, by their names and by what makes them.
import java.util.Collections
import java.util.concurrent.ConcurrentHashMap
import java.util.concurrent.ConcurrentLinkedQueue
import java.util.concurrent.locks.ReentrantReadWriteLock
import kotlin.concurrent.thread

object HawserStore {  // entity: singleton HawserStore lazy language
    private val worn = ConcurrentHashMap.newKeySet<String>()  // near: thread.unguarded-state
    private val calls = ConcurrentLinkedQueue<String>()
    private val seen = Collections.synchronizedSet(HashSet<String>())
    private val latch = ReentrantReadWriteLock()  // harmless: latch
    private val lent = HashMap<String, Int>()

    fun wear(name: String) {
        worn.add(name)
        calls.add(name)
        seen.add(name)
    }

    fun mend(name: String): Boolean {
        calls.poll()
        seen.remove(name)
        return worn.remove(name)
    }

    fun lend(name: String) {
        lent[name] = 1  // finding: thread.unguarded-state
    }

    fun giveBack(name: String) {
        lent.remove(name)
    }
}

fun workHawsers() {
    repeat(4) {
        thread {
            HawserStore.wear("bow")
            HawserStore.mend("bow")
            HawserStore.lend("bow")
            HawserStore.giveBack("bow")
        }
    }
}
