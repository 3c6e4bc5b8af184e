// Objects of classes without a name: what is done inside of them counts.
package duty

object Foghorn {  // entity: singleton Foghorn lazy language
    private var blown = 0

    fun blow() {
        blown = 1
    }
}

class FogPatrol {
    fun start(rounds: MutableList<Runnable>) {
        rounds.add(object : Runnable {
            override fun run() {
                Foghorn.blow()  // near: coupling.hidden-dependency
            }
        })
    }
}
