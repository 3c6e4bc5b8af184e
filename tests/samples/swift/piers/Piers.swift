// There must be only one.
final class TideTable {  // finding: single.meant-single
    private var shown: Int = 0

    func show() {
        self.shown = 1
    }
}

// Not a singleton: each pier has one.
final class Ladder {  // near: single.meant-single
    private var rungs: Int = 4

    func climb() {
        self.rungs = 3
    }
}

// There is only one, and the class sees to it.
final class Anchor {  // near: single.meant-single single.subclassable  // entity: singleton Anchor lazy none
    private static var anchorage: Anchor?
    private var chain: Int = 0

    private init() {  // near: single.open-constructor
        if Anchor.anchorage != nil {
            fatalError("the anchor is there")
        }
    }

    static func anchor() -> Anchor {
        if Anchor.anchorage == nil {
            Anchor.anchorage = Anchor()  // near: single.second-creation  // finding: thread.unguarded-creation
        }
        return Anchor.anchorage != nil  // near: single.may-return-nothing
    }

    func lower() {
        self.chain = 1
    }
}

final class Boatswain {
    private var own: Anchor
    private var notes: [String] = []  // near: coupling.fixed-collaborator

    init(_ anchor: Anchor) {  // near: coupling.hidden-dependency coupling.fixed-collaborator
        self.own = anchor
    }

    func moor() {
        self.own.lower()  // near: coupling.hidden-dependency
    }
}

// One is handed out, and a helper makes another.
final class Capstan {  // entity: singleton Capstan lazy none  // finding: single.open-constructor
    private static var one: Capstan?
    private var turns: Int = 0

    static func capstan() -> Capstan {
        if Capstan.one == nil {
            Capstan.one = Capstan()  // finding: thread.unguarded-creation
        }
        return Capstan.one!
    }

    func turn() {
        self.turns = 1
    }
}

func spareCapstan() -> Capstan {
    return Capstan()  // finding: single.second-creation
}

// Near miss: the class makes others of its kind itself.
final class Windlass {
    private static var one: Windlass?  // entity: shared-instance one lazy none
    private var turns: Int = 0

    static func windlass() -> Windlass {
        if Windlass.one == nil {
            Windlass.one = Windlass()  // finding: thread.unguarded-creation
        }
        return Windlass.one!
    }

    static func turned(_ by: Int) -> Windlass {
        let other = Windlass()  // near: single.second-creation
        other.turns = by
        return other
    }
}

// Hands out what another function fills; near miss: it says so by ending.
final class Beam {  // entity: singleton Beam lazy none  // finding: single.open-constructor
    private static var one: Beam?
    private var lit: Int = 0

    static func beam() -> Beam? {
        return Beam.one  // finding: single.may-return-nothing
    }

    static func begin() {
        if Beam.one == nil {
            Beam.one = Beam()  // finding: thread.unguarded-creation
        }
    }

    func light() {
        self.lit = 1
    }
}

final class Glow {  // entity: singleton Glow lazy none  // finding: single.open-constructor
    private static var one: Glow?
    private var lit: Int = 0

    static func glow(_ open: Bool) -> Glow {
        if !open {
            fatalError("closed")
        }
        if Glow.one == nil {
            Glow.one = Glow()  // finding: thread.unguarded-creation
        }
        return Glow.one!  // near: single.may-return-nothing
    }

    func light() {
        self.lit = 1
    }
}

// Put in another's place by whoever asks for it.
class Flare {
    private var lit: Int = 0

    func light() {
        self.lit = 1
    }
}

private var flareNow: Flare?  // entity: shared-instance flareNow lazy none

func flare() -> Flare {
    if flareNow == nil {
        flareNow = Flare()  // finding: thread.unguarded-creation
    }
    return flareNow!
}

// Near misses: never set again.
private let torchNow: Flare = Flare()  // near: single.replaceable  // entity: shared-instance torchNow lazy language

func torch() -> Flare {
    return torchNow!
}

private var wickNow: Flare?  // entity: shared-instance wickNow lazy none

func wick() -> Flare {
    if wickNow == nil {
        wickNow = Flare()  // near: single.replaceable  // finding: thread.unguarded-creation
    }
    return wickNow!
}

// A circle of three; near misses: what is called later is no part of the making.
final class Crane {  // entity: singleton Crane lazy none
    private static var one: Crane?
    var load: Int = 0

    init() {  // finding: single.open-constructor
        self.load = Winch.winch().rope  // finding: coupling.hidden-dependency
    }

    static func crane() -> Crane {
        if Crane.one == nil {
            Crane.one = Crane()  // finding: thread.unguarded-creation init.cycle
        }
        return Crane.one!
    }

    func turn() {
        self.load = 1
    }
}

final class Winch {  // entity: singleton Winch lazy none
    private static var one: Winch?
    var rope: Int = 0

    init() {  // finding: single.open-constructor
        self.rope = Hook.hook().weight  // finding: coupling.hidden-dependency
    }

    static func winch() -> Winch {
        if Winch.one == nil {
            Winch.one = Winch()  // finding: thread.unguarded-creation
        }
        return Winch.one!
    }
}

final class Hook {  // entity: singleton Hook lazy none
    private static var one: Hook?
    var weight: Int = 0

    init() {  // finding: single.open-constructor
        self.weight = Crane.crane().load  // finding: coupling.hidden-dependency
    }

    static func hook() -> Hook {
        if Hook.one == nil {
            Hook.one = Hook()  // finding: thread.unguarded-creation
        }
        return Hook.one!
    }
}

final class Tackle {
    private var blocks: Int = 2

    func pull() {  // near: coupling.cycle
        self.blocks = 3
    }

    func strain(_ tons: Int) {
        if tons < 0 {
            fatalError("tons")
        }
        self.blocks = tons
    }
}

final class Davit {
    private var boats: Int = 0

    init() {  // near: init.cycle init.reentrant init.reads-environment
        self.boats = 0
    }

    func lower() {
        tackle.pull()  // near: coupling.cycle  // finding: coupling.hidden-dependency
        self.boats = 1
    }
}

let tackle: Tackle = Tackle()  // near: init.cycle init.reentrant  // entity: shared-instance tackle lazy language
let davit: Davit = Davit()  // entity: shared-instance davit lazy language

// Asks for itself through a helper.
final class LogBook {  // entity: singleton LogBook lazy none
    private static var one: LogBook?
    private var lines: Int = 0

    init() {  // finding: single.open-constructor
        greet()
    }

    static func book() -> LogBook {
        if LogBook.one == nil {
            LogBook.one = LogBook()  // finding: thread.unguarded-creation
        }
        return LogBook.one!
    }

    func write() {
        self.lines = 1
    }
}

func greet() {
    LogBook.book().write()  // finding: init.reentrant
}

// Reads the environment while it is made; near misses: asked later, or handed in.
final class Flags {
    private var home: String = ""

    init() {
        self.home = ProcessInfo.processInfo.environment["HARBOUR"] ?? ""  // finding: init.reads-environment
    }

    func rename(_ name: String) {
        self.home = name
    }
}

let flags: Flags = Flags()  // entity: shared-instance flags lazy language

final class Pennants {
    private var home: String = ""

    init(_ home: String) {
        self.home = home
    }

    func reload() {
        self.home = ProcessInfo.processInfo.environment["HARBOUR"] ?? ""  // near: init.reads-environment
    }
}

let pennants: Pennants = Pennants("pier")  // entity: shared-instance pennants lazy language

// Reads a file while the program is loaded.
final class Almanac {
    private var rows: [String]

    init() {
        self.rows = [(try? String(contentsOfFile: "almanac")) ?? ""]
    }

    func drop() {
        self.rows.removeLast()
    }
}

let almanac: Almanac = Almanac()  // entity: shared-instance almanac lazy language

// Throws where it stands.
final class Scale {
    private var tons: Int = 0

    init() {
        self.tons = FileManager.default.fileExists(atPath: "scale") ? 1 : 0
        if self.tons == 0 {
            fatalError("no scale")
        }
    }

    func load() {
        self.tons = 2
    }
}

let scale: Scale = Scale()  // entity: shared-instance scale lazy language

// Works only after it was set up; near misses: it sees to it itself.
final class Gauge {
    func read() -> Int {
        return 3
    }
}

final class Locks {
    private var gauge: Gauge?
    private var level: Int = 0

    func setUp(_ gauge: Gauge) {
        self.gauge = gauge
    }

    func fill() {
        self.level = self.gauge!.read()
    }
}

final class Basin {
    private var gauge: Gauge?
    private var level: Int = 0

    func setUp(_ gauge: Gauge) {
        self.gauge = gauge
    }

    func fill() {  // near: init.needs-setup
        if self.gauge == nil {
            fatalError("no gauge")
        }
        self.level = self.gauge!.read()
    }

    func empty() {  // near: init.needs-setup
        self.level = self.gauge?.read() ?? 0
    }
}

let locks: Locks = Locks()  // entity: shared-instance locks lazy language
let basin: Basin = Basin()  // entity: shared-instance basin lazy language

// The failure goes nowhere; near misses: it is told, or handed on.
final class Barometer {
    private var pressure: Int = 0

    init() {
        do {
            self.pressure = try String(contentsOfFile: "barometer").count
        } catch {  // finding: init.failure-swallowed
        }
    }

    func fall() {
        self.pressure = 1
    }
}

private var barometerNow: Barometer?  // entity: shared-instance barometerNow lazy none

func barometer() -> Barometer {
    if barometerNow == nil {
        barometerNow = Barometer()  // finding: thread.unguarded-creation
    }
    return barometerNow!
}

final class Hygrometer {
    private var damp: Int = 0

    init() {
        do {
            self.damp = try String(contentsOfFile: "hygrometer").count
        } catch {
            fatalError("no hygrometer")  // near: init.failure-swallowed
        }
    }

    func rise() {
        self.damp = 1
    }
}

final class Anemometer {
    private var wind: Int = 0

    init() {
        do {
            self.wind = try String(contentsOfFile: "anemometer").count
        } catch {
            print(error)  // near: init.failure-swallowed
            fatalError("no anemometer")
        }
    }

    func blow() {
        self.wind = 1
    }
}

private var hygrometerNow: Hygrometer?  // entity: shared-instance hygrometerNow lazy none
private var anemometerNow: Anemometer?  // entity: shared-instance anemometerNow lazy none

func hygrometer() -> Hygrometer {
    if hygrometerNow == nil {
        hygrometerNow = Hygrometer()  // finding: thread.unguarded-creation
    }
    return hygrometerNow!
}

func anemometer() -> Anemometer {
    if anemometerNow == nil {
        anemometerNow = Anemometer()  // finding: thread.unguarded-creation
    }
    return anemometerNow!
}

// Others run while it is made; near misses: nothing runs in between, or what is promised is kept.
final class Radio {
    private var channel: Int = 16

    func tune(_ channel: Int) {
        self.channel = channel
    }
}

private var radioNow: Radio?  // entity: shared-instance radioNow lazy none
private var sonarNow: Radio?  // entity: shared-instance sonarNow lazy none
private var radarNow: Radio?  // entity: global-variable radarNow elsewhere none

func radio() async -> Radio {
    if radioNow == nil {
        let channel = await askForChannel()  // finding: thread.await-gap
        radioNow = Radio()  // finding: thread.unguarded-creation
        radioNow!.tune(channel)
    }
    return radioNow!
}

func sonar() async -> Radio {
    let channel = await askForChannel()  // near: thread.await-gap
    if sonarNow == nil {
        sonarNow = Radio()  // finding: thread.unguarded-creation
        sonarNow!.tune(channel)
    }
    return sonarNow!
}

func askForRadar() async -> Radio {
    await askForChannel()
    return Radio()
}

func askForChannel() async -> Int {
    return 16
}

// Opens what nothing closes; near misses: closed in the same function, or at the end.
final class Soundings {
    private var file: FileHandle?
    private var read: Int = 0

    func open(_ name: String) {
        self.file = FileHandle(forReadingAtPath: name)  // finding: lifetime.never-released
    }

    func next() {
        self.read = self.file == nil ? 0 : 1
    }
}

final class Tides {
    private var file: FileHandle?

    func open(_ name: String) {
        self.file = FileHandle(forReadingAtPath: name)  // near: lifetime.never-released
    }

    func close() {
        self.file?.closeFile()
    }
}

let soundings: Soundings = Soundings()  // entity: shared-instance soundings lazy language
let tides: Tides = Tides()  // entity: shared-instance tides lazy language

// Walks over the list itself, and registers whoever asks; near misses: over a copy, and with a look first.
final class Bells {
    private var ringers: [Ringer] = []
    private var players: [Player] = []

    func add(_ ringer: Ringer) {
        self.ringers.append(ringer)
    }

    func remove(_ ringer: Ringer) {
        self.ringers.removeAll { $0 === ringer }
    }

    func ring() {
        for ringer in self.ringers {
            ringer.ring()
        }
    }

    func addPlayer(_ player: Player) {
        if !self.players.contains(where: { $0 === player }) {
            self.players.append(player)  // near: lifetime.duplicate-subscription lifetime.grows-forever
        }
    }

    func removePlayer(_ player: Player) {
        self.players.removeAll { $0 === player }
    }

    func play() {
        for player in Array(self.players) {
            player.play()
        }
    }

    func count() -> Int {
        var strokes = 0
        for player in self.players {
            strokes += player.strokes
        }
        return strokes
    }
}

let bells: Bells = Bells()  // entity: shared-instance bells lazy language

final class Ringer {
    init() {
        bells.add(self)  // finding: coupling.hidden-dependency
    }

    func again() {
        bells.add(self)  // finding: lifetime.duplicate-subscription
    }

    func close() {
        bells.remove(self)
    }

    func ring() {
        self.close()
    }
}

final class Player {
    var strokes: Int = 3

    init() {
        bells.addPlayer(self)  // near: lifetime.dangling-subscriber
    }

    func again() {
        bells.addPlayer(self)  // near: lifetime.duplicate-subscription
    }

    func close() {
        bells.removePlayer(self)
    }

    func play() {
        self.close()
    }
}

// Keeps the caller's object; near misses: only what it says, or for a while.
final class Porter {
    private var caller: Caller?
    private var last: String = ""
    private var seen: [String] = []

    func keep(_ caller: Caller) {
        self.caller = caller
    }

    func note(_ caller: Caller) {
        self.last = caller.ship
    }

    func write(_ caller: Caller) {
        self.seen.append(caller.ship)  // near: lifetime.grows-forever
        if self.seen.count > 9 {  // finding: thread.check-then-act
            self.seen.removeFirst()
        }
    }
}

let porter: Porter = Porter()  // entity: shared-instance porter lazy language

final class Caller {
    var ship: String = ""

    init(_ ship: String) {
        self.ship = ship
    }

    func enter() {
        porter.keep(self)  // finding: coupling.hidden-dependency lifetime.captured-short-lived
    }

    func passBy() {
        porter.note(self)  // near: lifetime.captured-short-lived
        porter.write(self)  // near: lifetime.captured-short-lived
    }
}

func receive(_ ship: String) {
    let caller = Caller(ship)
    caller.enter()
    caller.passBy()
}

// Used after its end; near misses: opened again, or used before.
final class Sluice {
    private var isOpen: Bool = true
    private var level: Int = 0

    func close() {
        self.isOpen = false
    }

    func open() {
        self.isOpen = true
    }

    func measure() -> Int {
        self.level += 1
        return self.level
    }
}

let sluice: Sluice = Sluice()  // entity: shared-instance sluice lazy language

// Makes its own.
final class Surveyor {
    private var echo: Echo

    init() {
        self.echo = Echo()  // finding: coupling.fixed-collaborator
    }

    func depth() -> String {
        return self.echo.read()
    }
}

final class Echo {
    func read() -> String {
        return (try? String(contentsOfFile: "echo")) ?? ""
    }
}

// Nothing to hand in; near misses: no state, or one caller.
final class Tickets {  // finding: coupling.static-only-api  // entity: static-holder Tickets eager language
    private static var sold: Int = 0

    static func sell() {
        Tickets.sold = 1
    }

    static func count() -> Int {
        return Tickets.sold
    }
}

final class Knots {  // near: coupling.static-only-api
    static func bowline(_ turns: Int) -> Int {
        return turns + 1
    }

    static func hitch(_ turns: Int) -> Int {
        return turns + 2
    }
}

final class Bollards {  // near: coupling.static-only-api  // entity: static-holder Bollards eager language
    private static var used: Int = 0

    static func use() {
        Bollards.used = 1
    }
}

final class Sailor {
    func tie() -> Int {
        Bollards.use()  // finding: coupling.hidden-dependency
        Tickets.sell()  // finding: coupling.hidden-dependency
        return Knots.bowline(2)
    }
}

final class Rower {
    func tie() -> Int {
        return Knots.hitch(Tickets.count())
    }
}

// Passed on by four; near misses: used on the way, or made there.
final class Papers {
    func inOrder() -> Bool {
        return true
    }
}

func stamp(_ papers: Papers) -> Bool {
    return papers.inOrder()
}

func clerk(_ papers: Papers) -> Bool {
    return stamp(papers)
}

func counter(_ papers: Papers) -> Bool {
    return clerk(papers)
}

func entrance(_ papers: Papers) -> Bool {
    return counter(papers)
}

func door(_ papers: Papers) -> Bool {  // finding: coupling.long-handoff
    return entrance(papers)
}

func gate(_ papers: Papers) -> Bool {  // near: coupling.long-handoff
    return papers.inOrder() && counter(papers)
}

// One reached through another; near misses: a part of the object, and the other one asked directly.
final class Buoys {
    private var lit: Int = 0

    func light() {
        self.lit = 1
    }
}

let buoys: Buoys = Buoys()  // entity: shared-instance buoys lazy language

final class Depths {
    private var least: Int = 0

    func measure() {
        self.least = 4
    }
}

final class Channel {  // entity: singleton Channel lazy none  // finding: single.open-constructor
    private static var one: Channel?
    private var inner: Depths = Depths()

    static func channel() -> Channel {
        if Channel.one == nil {
            Channel.one = Channel()  // finding: thread.unguarded-creation
        }
        return Channel.one!
    }

    func capstan() -> Capstan {
        return Capstan.capstan()
    }

    func depths() -> Depths {
        return self.inner
    }
}

final class Pilot {
    func steer() {
        Channel.channel().capstan().turn()  // finding: coupling.hidden-dependency coupling.chained-access
        Channel.channel().depths().measure()  // near: coupling.chained-access
    }

    func dark() {
        buoys.light()  // near: coupling.chained-access  // finding: coupling.hidden-dependency
    }
}

// Reached from six places; near miss: two.
final class Gong {
    private var struck: Int = 0

    func strike() {
        self.struck = 1
    }
}

let gong: Gong = Gong()  // finding: coupling.wide-reach  // entity: shared-instance gong lazy language
let whistle: Gong = Gong()  // near: coupling.wide-reach  // entity: shared-instance whistle lazy language

final class Pier1 {
    func fog() {
        gong.strike()  // finding: coupling.hidden-dependency
        whistle.strike()  // finding: coupling.hidden-dependency
    }
}

final class Pier2 {
    func fog() {
        gong.strike()
        whistle.strike()
    }
}

final class Pier3 {
    func fog() {
        gong.strike()
    }
}

final class Pier4 {
    func fog() {
        gong.strike()
    }
}

// Begins the day for all; near miss: what is handed in is no reach.
final class Morning {
    func begin() {  // finding: coupling.crowded-startup
        gong.strike()
        whistle.strike()
        buoys.light()
        soundings.open("morning")  // finding: coupling.hidden-dependency
        davit.lower()  // finding: coupling.hidden-dependency
        flags.rename("morning")  // finding: coupling.hidden-dependency
        pennants.reload()  // finding: coupling.hidden-dependency
    }

    func half(_ bell: Gong, _ light: Buoys, _ line: Soundings, _ boat: Davit, _ flag: Flags) {  // near: coupling.crowded-startup
        bell.strike()
        light.light()
        line.open("half")
        boat.lower()
        flag.rename("half")
    }
}

// Only the first one's name counts; near miss: it counts each time.
final class Plate {  // entity: singleton Plate lazy none
    private static var one: Plate?
    private var name: String = ""

    init(_ name: String, _ size: Int) {  // finding: single.open-constructor
        self.name = name + String(size)
    }

    static func plate(_ name: String, _ size: Int) -> Plate {  // finding: init.arguments-ignored
        if Plate.one == nil {
            Plate.one = Plate(name, size)  // finding: thread.unguarded-creation
        }
        return Plate.one!
    }

    func rename(_ name: String) {
        self.name = name
    }
}

final class Sign {  // entity: singleton Sign lazy none
    private static var one: Sign?
    private var name: String = ""

    init(_ name: String) {  // finding: single.open-constructor
        self.name = name
    }

    static func sign(_ name: String) -> Sign {  // near: init.arguments-ignored
        if Sign.one == nil {
            Sign.one = Sign(name)  // finding: thread.unguarded-creation
        }
        Sign.one!.rename(name)
        return Sign.one!
    }

    func rename(_ name: String) {
        self.name = name
    }
}

// One slot for a family; near miss: one for each of it.
class Raft {  // entity: singleton Raft lazy none  // finding: single.open-constructor
    static var one: Raft?
    private var logs: Int = 4

    static func raft() -> Raft {
        if Raft.one == nil {
            Raft.one = self.init()  // finding: thread.unguarded-creation single.slot-shared-by-subclasses
        }
        return Raft.one!
    }

    func sink() {
        self.logs = 0
    }
}

final class WideRaft: Raft {
    func load() {
        self.sink()
    }
}

class Punt {  // entity: singleton Punt lazy none  // finding: single.open-constructor
    static var one: Punt?
    private var poles: Int = 1

    static func punt() -> Punt {
        if Punt.one == nil {
            Punt.one = Punt()  // near: single.slot-shared-by-subclasses  // finding: thread.unguarded-creation
        }
        return Punt.one!
    }

    func push() {
        self.poles = 0
    }
}

final class Ferry {  // entity: singleton Ferry lazy none
    private static var one: Ferry?
    private var trips: Int = 0

    private init() {  // near: single.subclassable
        self.trips = 1
    }

    static func ferry() -> Ferry {
        if Ferry.one == nil {
            Ferry.one = Ferry()  // near: single.slot-shared-by-subclasses  // finding: thread.unguarded-creation
        }
        return Ferry.one!
    }

    func cross() {
        self.trips = 2
    }
}

// Threads: what is sound, beside what is not.
final class Windows {  // entity: singleton Windows lazy lock
    private static let gate = NSLock()  // harmless: gate
    private static var one: Windows?
    private var panes: [String] = []

    private init() {  // near: single.open-constructor
        for pane in 0..<9 {
            panes.append("pane \(pane)")
        }
    }

    static func get() -> Windows {
        gate.lock()  // near: thread.wrong-lock thread.lock-every-access init.lazy-needless
        defer { gate.unlock() }
        if one == nil {  // near: thread.double-check-incomplete thread.double-check-unsound
            one = Windows()  // near: thread.unguarded-creation init.lazy-needless
        }
        return one!
    }

    func take() -> String {
        Windows.gate.lock()
        defer { Windows.gate.unlock() }
        return panes.removeLast()  // near: thread.mixed-guard thread.check-then-act
    }
}

final class Doors {  // entity: singleton Doors lazy language
    static let shared = Doors()  // near: thread.unguarded-creation thread.double-check-unsound thread.double-check-incomplete
    private let gate = NSLock()
    private var opened = 0
    private var last = ""

    private init() {}

    func open() {
        gate.lock()  // near: thread.wrong-lock thread.lock-every-access
        opened += 1  // near: thread.lost-update thread.unguarded-state thread.mixed-guard
        gate.unlock()
    }

    func note(_ text: String) {
        gate.lock()
        last = text  // near: thread.lost-update thread.unguarded-state
        gate.unlock()
    }
}

// Tested before the lock only.
final class Shutters {  // entity: singleton Shutters lazy double-check-unsound
    private static let gate = NSLock()  // harmless: gate
    private static var one: Shutters?
    private var closed = 0

    private init() {}

    static func get() -> Shutters {
        if one == nil {  // finding: thread.double-check-incomplete
            gate.lock()
            one = Shutters()  // finding: init.lazy-needless
            gate.unlock()
        }
        return one!
    }

    func close() {
        closed = 1
    }
}

// Read outside the lock.
final class Blinds {  // entity: singleton Blinds lazy double-check-unsound
    private static let gate = NSLock()  // harmless: gate
    private static var one: Blinds?
    private var drawn = 0

    private init() {}

    static func get() -> Blinds {
        if one == nil {  // finding: thread.double-check-unsound
            gate.lock()
            if one == nil {
                one = Blinds()  // finding: init.lazy-needless
            }
            gate.unlock()
        }
        return one!
    }

    func draw() {
        drawn = 1
    }
}

// A lock in each call.
final class Fuse {  // entity: singleton Fuse lazy lock
    private static var one: Fuse?
    private var burnt = 0

    private init() {}

    static func get() -> Fuse {
        let lock = NSLock()
        lock.lock()  // finding: thread.wrong-lock
        if one == nil {
            one = Fuse()  // finding: init.lazy-needless
        }
        lock.unlock()
        return one!
    }

    func burn() {
        burnt = 1
    }
}

// A lock for each look, in a loop.
final class Ropes {  // entity: singleton Ropes lazy lock
    private static let gate = NSLock()  // harmless: gate
    private static var one: Ropes?
    private var coils: [String] = []

    private init() {
        for coil in 0..<4 {
            coils.append("coil \(coil)")
        }
    }

    static func get() -> Ropes {
        gate.lock()  // finding: thread.lock-every-access
        defer { gate.unlock() }
        if one == nil {
            one = Ropes()
        }
        return one!
    }

    func cut() {
        Ropes.gate.lock()
        coils.removeLast()
        Ropes.gate.unlock()
    }
}

final class Rigger {
    func week() {
        for _ in 0..<7 {
            Ropes.get().cut()  // finding: coupling.hidden-dependency
        }
        let windows = Windows.get()  // finding: coupling.hidden-dependency
        for _ in 0..<7 {
            _ = windows.take()
        }
    }
}

// Fields that two threads set.
final class Signals {  // entity: singleton Signals lazy language
    static let shared = Signals()
    private var shown = ""
    private var kept: [String] = []
    private let gate = NSLock()

    private init() {}

    func show(_ flag: String) {
        shown = flag  // finding: thread.unguarded-state
    }

    func read() -> String {
        return shown
    }

    func keep(_ flag: String) {
        gate.lock()
        kept.append(flag)
        gate.unlock()
    }

    func forget() {
        kept.removeAll()  // finding: thread.mixed-guard
    }
}

// A look and a change without a lock; near misses: under one.
final class Slips {  // entity: singleton Slips lazy language
    static let shared = Slips()
    private var taken: [String: String] = [:]
    private var given: [String: String] = [:]
    private let gate = NSLock()

    private init() {}

    func take(_ name: String) {
        if taken[name] == nil {  // finding: thread.check-then-act
            taken[name] = name  // finding: thread.unguarded-state
        }
    }

    func free(_ name: String) {
        taken.removeValue(forKey: name)
    }

    func give(_ name: String) {
        gate.lock()
        if given[name] == nil {  // near: thread.check-then-act
            given[name] = name  // near: lifetime.grows-forever
        }
        gate.unlock()
    }

    func back(_ name: String) {
        gate.lock()
        given.removeValue(forKey: name)
        gate.unlock()
    }
}

func work() {  // finding: coupling.crowded-startup
    DispatchQueue.global().async { Signals.shared.show("A") }
    DispatchQueue.global().async { Signals.shared.keep(Signals.shared.read()) }
    DispatchQueue.global().async { Signals.shared.forget() }
    DispatchQueue.global().async { _ = Windows.get().take() }
    DispatchQueue.global().async { Doors.shared.open() }
    DispatchQueue.global().async { Shutters.get().close() }
    DispatchQueue.global().async { Blinds.get().draw() }
    DispatchQueue.global().async { Fuse.get().burn() }
    DispatchQueue.global().async { Rigger().week() }
    DispatchQueue.global().async { Slips.shared.free("a") }
    DispatchQueue.global().async { Slips.shared.back("a") }
    Slips.shared.take("a")
    Slips.shared.give("a")
    Doors.shared.note("b")
}
