// Listeners that are entered with what lives as long as the process, and interceptors that a library
// calls on the threads of its requests.

class Mooring : BroadcastReceiver() {
    private var calls = 0
    fun onReceive() { calls += 1 }
}

object Quays {  // entity: singleton Quays lazy language
    private var opened = false
    private var mooring: Mooring? = null
    private var passing: Mooring? = null
    private var first: Mooring? = null

    fun open(context: Context) {
        passing = Mooring()
        context.registerReceiver(passing, 3)  // finding: lifetime.captured-short-lived
    }

    fun answer(context: ReactContext, view: View) {
        val listener = object : BaseActivityEventListener() {
            override fun onActivityResult(code: Int) {
                if (code == 1) return
                view.show(code)
            }
        }
        context.addActivityEventListener(listener)  // finding: lifetime.captured-short-lived
    }

    fun openOnce(context: Context) {
        if (opened) return
        opened = true
        first = Mooring()
        context.registerReceiver(first, 3)
    }

    fun enter(context: Context) {
        mooring = Mooring()
        context.registerReceiver(mooring, 3)
    }

    fun leave(context: Context) {
        context.unregisterReceiver(mooring)
        mooring = null
    }

    fun once(context: ReactContext) {
        context.addActivityEventListener(object : BaseActivityEventListener() {
            override fun onActivityResult(code: Int) {
                context.removeActivityEventListener(this)
            }
        })
    }
}

class Tolls : Interceptor {  // entity: singleton Tolls eager language  // finding: single.open-constructor
    private val rates = LinkedHashMap<String, Int>()

    fun set(name: String, rate: Int) { rates[name] = rate }  // finding: thread.unguarded-state  // near: lifetime.grows-forever

    override fun intercept(chain: Chain): Response {
        var sum = 0
        for ((name, rate) in rates) sum += rate + name.length
        return chain.proceed(sum)
    }

    companion object { val shared = Tolls() }
}

class TollOffice {
    fun connect(): Client = Client.Builder().addInterceptor(Tolls.shared).build()

    fun raise(name: String) = Tolls.shared.set(name, 2)
}
