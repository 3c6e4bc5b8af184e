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

final class Echo {
    func read() -> String {
        return (try? String(contentsOfFile: "echo")) ?? ""
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
