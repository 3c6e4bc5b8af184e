// Another takes its place.
class Foghorn {  // entity: singleton Foghorn lazy language
    private static var horn = Foghorn()
    private var blown = 0

    private init() {
        blown = 0
    }

    static func get() -> Foghorn {
        return horn
    }

    static func replace(_ other: Foghorn) {
        horn = other  // finding: single.replaceable
    }

    func blow() {
        blown = 1
    }
}

func keepTheHorn(_ horn: Foghorn) {
    Foghorn.replace(horn)
}

// One slot for a family of classes.
class Berth {  // entity: singleton Berth lazy none
    static var berth: Berth?
    private var ships = 0

    required init() {  // finding: single.open-constructor
        ships = 0
    }

    class func get() -> Berth {
        if berth == nil {
            berth = self.init()  // finding: single.slot-shared-by-subclasses thread.unguarded-creation
        }
        return berth!
    }

    func moor() {
        ships = 1
    }
}

class DeepBerth: Berth {
    func dredge() {
        moor()
    }
}

// Reads a file when it is first asked for.
class TideFile {  // entity: singleton TideFile lazy language
    static let shared = TideFile()
    private var rows: String

    private init() {
        rows = String(contentsOfFile: "tides")
    }

    func drop() {
        rows = ""
    }
}

// Each needs the other while it is made.
class Light {  // entity: singleton Light lazy language
    static let shared = Light()  // finding: init.cycle
    private var height = 0

    private init() {
        height = Mole.shared.length()  // finding: coupling.cycle coupling.hidden-dependency
    }

    func raise() {
        height = height + 1
    }
}

class Mole {  // entity: singleton Mole lazy language
    static let shared = Mole()
    private var span = 0

    private init() {
        Light.shared.raise()  // finding: coupling.cycle coupling.hidden-dependency
    }

    func length() -> Int {
        span = span + 1
        return span
    }
}

// Works only after a call, and is used before it; near miss: it tests.
class Chart {
    func depth() -> Int {
        return 4
    }
}

class Plotter {  // entity: singleton Plotter lazy language
    static let shared = Plotter()
    private var chart: Chart?
    private var uses = 0

    private init() {
        uses = 0
    }

    func load(_ loaded: Chart) {
        chart = loaded
    }

    func depth() -> Int {
        uses = 1
        return chart!.depth()
    }
}

class Surveyor {  // entity: singleton Surveyor lazy language
    static let shared = Surveyor()
    private var chart: Chart?

    private init() {
    }

    func load(_ loaded: Chart) {
        chart = loaded
    }

    func depth() -> Int {
        return chart == nil ? 0 : chart!.depth()
    }
}

func plotTheDay(_ chart: Chart) -> Int {
    let depth = Plotter.shared.depth()  // finding: init.needs-setup
    let other = Surveyor.shared.depth()  // near: init.needs-setup
    Plotter.shared.load(chart)
    Surveyor.shared.load(chart)
    return depth + other
}

// The failure is dropped; near miss: it is told.
class Barograph {  // entity: singleton Barograph lazy language
    static let shared = Barograph()
    private var rows = ""

    private init() {
        do {
            rows = try readPressure()
        } catch {  // finding: init.failure-swallowed
        }
    }

    func drop() {
        rows = ""
    }
}

func readPressure() throws -> String {
    return "1013"
}

// A lock for each look, fetched in a loop; near miss: fetched once.
class Tariff {  // entity: singleton Tariff lazy lock
    private static var tariff: Tariff?
    private static let gate = NSLock()  // harmless: gate
    private var rows: [String] = []

    private init() {
        for row in 1...3 {
            rows.append("row \(row)")
        }
    }

    static func get() -> Tariff {
        gate.lock()  // finding: thread.lock-every-access
        defer { gate.unlock() }
        if tariff == nil {
            tariff = Tariff()
        }
        return tariff!
    }

    func drop() {
        Tariff.gate.lock()
        defer { Tariff.gate.unlock() }
        rows.removeLast()
    }
}

class Cashier {
    func month() {
        for _ in 1...30 {
            Tariff.get().drop()  // finding: coupling.hidden-dependency
        }
    }
}

// A thread changes what nobody guards.
class Weather {  // entity: singleton Weather lazy language
    static let shared = Weather()
    private var wind = "calm"
    private let gate = NSLock()
    private var rain = "none"

    private init() {
    }

    func blow(_ newWind: String) {
        wind = newWind  // finding: thread.unguarded-state
    }

    func pour(_ newRain: String) {
        gate.lock()
        defer { gate.unlock() }
        rain = newRain  // near: thread.unguarded-state
    }
}

func watchTheSky() {
    DispatchQueue.global().async {
        Weather.shared.blow("north")
        Weather.shared.pour("much")
    }
    Weather.shared.blow("south")
    Weather.shared.pour("little")
}

// A thread is started on an object that is not complete; near miss: it is the last thing.
class EchoSounder {
    private var step: Int

    init() {
        step = 0
        DispatchQueue.global().async { self.sweep() }  // finding: thread.escaping-this
        step = 2
    }

    func sweep() {
        step = 1
    }
}

// Keeps what is made for one visit.
class Gate {  // entity: singleton Gate lazy language
    static let shared = Gate()
    private var visit: Visit?
    private var last = ""

    private init() {
    }

    func begin(_ newVisit: Visit) {
        visit = newVisit
    }

    func note(_ ship: String) {
        last = ship
    }
}

class Visit {
    private let ship: String

    init(ship: String) {
        self.ship = ship
    }

    func enter() {
        Gate.shared.begin(self)  // finding: lifetime.captured-short-lived coupling.hidden-dependency
        Gate.shared.note(ship)  // near: lifetime.captured-short-lived
    }
}

func greet(_ ship: String) {
    let visit = Visit(ship: ship)
    visit.enter()
}

// Nothing to hand in.
class Stamps {  // entity: static-holder Stamps eager language // finding: coupling.static-only-api
    private static var used = 0

    private init() {
    }

    static func use() {
        used = used + 1  // finding: thread.lost-update
    }

    static func count() -> Int {
        return used
    }
}

class Clerk {
    func stamp() {
        Stamps.use()  // finding: coupling.hidden-dependency
    }
}

class Auditor {
    func count() -> Int {
        return Stamps.count()
    }
}

// Reached from everywhere; near miss: four classes.
class Siren {  // entity: singleton Siren lazy language // finding: coupling.wide-reach
    static let shared = Siren()
    private var sounded = 0

    private init() {
    }

    func sound() {
        sounded = 1
    }
}

class Bell {  // near: coupling.wide-reach  // entity: singleton Bell lazy language
    static let shared = Bell()
    private var rung = 0

    private init() {
    }

    func ring() {
        rung = 1
    }
}

class NorthQuay {
    func fog() {
        Siren.shared.sound()  // finding: coupling.hidden-dependency
        Bell.shared.ring()  // finding: coupling.hidden-dependency
    }
}

class SouthQuay {
    func fog() {
        Siren.shared.sound()
        Bell.shared.ring()
    }
}

class EastQuay {
    func fog() {
        Siren.shared.sound()
        Bell.shared.ring()
    }
}

class WestQuay {
    func fog() {
        Siren.shared.sound()
    }
}

class InnerQuay {
    func fog() {
        Siren.shared.sound()
    }
}
