// There must be only one.
final class TideTable {  // finding: single.meant-single
    private var shown: Int = 0

    func show() {
        self.shown = 1
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

func askForChannel() async -> Int {
    return 16
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

func gate(_ papers: Papers) -> Bool {  // near: coupling.long-handoff
    return papers.inOrder() && counter(papers)
}

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
