// Quays, mast and gauges of the harbour: what the other folders do not show in Swift.
import Foundation

// One is handed out, another is made beside it.
class Beacon {  // entity: singleton Beacon lazy language
    private static let one = Beacon()
    private var flashes = 0

    init() {  // finding: single.open-constructor
        flashes = 0
    }

    static func get() -> Beacon {
        return one
    }

    func flash() {
        flashes = 1
    }
}

class Pier {
    func light() {
        let second = Beacon()  // finding: single.second-creation
        second.flash()
    }
}

// Near miss: nobody else can make one.
class Lantern {  // entity: singleton Lantern lazy language
    static let shared = Lantern()
    private var lit = 0

    private init() {  // near: single.open-constructor
        lit = 0
    }

    func light() {
        lit = 1
    }
}

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

// Only the first caller's name counts; near miss: kept by name.
class Plate {
    private static var plate: Plate?  // entity: shared-instance plate lazy lock
    private static var plates: [String: Plate] = [:]  // entity: registry plates lazy language
    private static let gate = NSLock()  // harmless: gate
    private var name: String

    private init(name: String) {
        self.name = name
    }

    static func get(_ name: String) -> Plate {  // finding: init.arguments-ignored
        gate.lock()
        defer { gate.unlock() }
        if plate == nil {
            plate = Plate(name: name)
        }
        return plate!
    }

    static func of(_ name: String) -> Plate {  // near: init.arguments-ignored
        gate.lock()
        defer { gate.unlock() }
        if plates[name] == nil {
            plates[name] = Plate(name: name)
        }
        return plates[name]!
    }

    func rename(_ newName: String) {
        name = newName
    }
}

func labelTheQuays() {
    Plate.get("north").rename("N")
    Plate.get("south").rename("S")
    Plate.of("east").rename("E")
}

// Others run while it is made; near miss: nothing runs in between.
class Radio {
    private static var radio: Radio?  // entity: shared-instance radio lazy none
    private static var sonar: Radio?  // entity: shared-instance sonar lazy none
    private var channel = 16

    private init() {
        channel = 16
    }

    static func get() async -> Radio {
        if radio == nil {
            await warmUp()  // finding: thread.await-gap
            radio = Radio()  // finding: thread.unguarded-creation
        }
        return radio!
    }

    static func second() async -> Radio {
        await warmUp()  // near: thread.await-gap
        if sonar == nil {
            sonar = Radio()  // finding: thread.unguarded-creation
        }
        return sonar!
    }

    static func warmUp() async {
    }

    func tune(_ newChannel: Int) {
        channel = newChannel
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

class Thermograph {  // entity: singleton Thermograph lazy language
    static let shared = Thermograph()
    private var rows = ""

    private init() {
        do {
            rows = try readPressure()
        } catch {  // near: init.failure-swallowed
            fatalError("no degrees")
        }
    }

    func drop() {
        rows = ""
    }
}

func readPressure() throws -> String {
    return "1013"
}

// The slot is read outside the lock.
class Radar {  // entity: singleton Radar lazy double-check-unsound
    private static var radar: Radar?
    private static let gate = NSLock()  // harmless: gate
    private var sweeps = 0

    private init() {
        sweeps = 0
    }

    static func get() -> Radar {
        if radar == nil {  // finding: thread.double-check-unsound
            gate.lock()
            if radar == nil {
                radar = Radar()  // finding: init.lazy-needless
            }
            gate.unlock()
        }
        return radar!
    }

    func sweep() {
        sweeps = 1
    }
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

class DepthSounder {
    private var step: Int

    init() {
        step = 2
        DispatchQueue.global().async { self.sweep() }  // near: thread.escaping-this
    }

    func sweep() {
        step = 1
    }
}

// Opens what nothing closes; near miss: closed at its end.
class EchoLog {  // entity: singleton EchoLog lazy language
    static let shared = EchoLog()
    private var file: FileHandle?

    private init() {
    }

    func begin() {
        file = FileHandle(forReadingAtPath: "echoes")  // finding: lifetime.never-released
    }
}

class WaveLog {  // entity: singleton WaveLog lazy language
    static let shared = WaveLog()
    private var file: FileHandle?

    private init() {
    }

    func begin() {
        file = FileHandle(forReadingAtPath: "waves")  // near: lifetime.never-released
    }

    func close() {
        file?.closeFile()
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

// Used after its end; near miss: opened again.
class Gauge {  // entity: singleton Gauge lazy language
    static let shared = Gauge()
    private var level = 0
    private var opened = true

    private init() {
    }

    func close() {
        opened = false
    }

    func open() {
        opened = true
    }

    func measure() -> Int {
        level = level + 1
        return level
    }
}

func endOfDay() -> Int {
    Gauge.shared.close()
    return Gauge.shared.measure()  // finding: lifetime.used-after-teardown
}

func newDay() -> Int {
    Gauge.shared.close()
    Gauge.shared.open()
    return Gauge.shared.measure()  // near: lifetime.used-after-teardown
}

// Makes its own helper that reads files; near miss: it is handed in.
class ChartStore {
    func depth(_ place: String) -> Int {
        return String(contentsOfFile: place).count
    }
}

class Navigator {
    private let store = ChartStore()  // finding: coupling.fixed-collaborator

    func depth() -> Int {
        return store.depth("roads")
    }
}

class Mate {
    private let store: ChartStore

    init(store: ChartStore) {
        self.store = store  // near: coupling.fixed-collaborator
    }

    func depth() -> Int {
        return store.depth("bay")
    }
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

// One object reached through another.
class Buoyage {  // entity: singleton Buoyage lazy language
    static let shared = Buoyage()
    private var laid = 0

    private init() {
    }

    func lay() {
        laid = 1
    }
}

class Fairway {  // entity: singleton Fairway lazy language
    static let shared = Fairway()
    private var depth = 0

    private init() {
    }

    func marks() -> Buoyage {
        return Buoyage.shared
    }

    func dredge() {
        depth = 1
    }
}

class Tender {
    func work() {
        Fairway.shared.marks().lay()  // finding: coupling.chained-access coupling.hidden-dependency
        Fairway.shared.dredge()  // near: coupling.chained-access
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

// Starts them all; near miss: only five.
class Opening {
    func open() {  // finding: coupling.crowded-startup
        Beacon.get().flash()  // finding: coupling.hidden-dependency
        Siren.shared.sound()
        Bell.shared.ring()
        WaveLog.shared.begin()  // finding: coupling.hidden-dependency
        EchoLog.shared.begin()  // finding: coupling.hidden-dependency
        Berth.get().moor()  // finding: coupling.hidden-dependency
    }

    func half() {  // near: coupling.crowded-startup
        Siren.shared.sound()
        Lantern.shared.light()  // finding: coupling.hidden-dependency
        Barograph.shared.drop()  // finding: coupling.hidden-dependency
        Thermograph.shared.drop()  // finding: coupling.hidden-dependency
        Foghorn.get().blow()  // finding: coupling.hidden-dependency
    }
}
