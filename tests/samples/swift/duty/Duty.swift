// Guards, starts, lists and ties of a harbour on duty.
import Foundation

// Guarded when it is written, not when it is read.
final class TideBoard {  // entity: singleton TideBoard lazy language
    static let shared = TideBoard()
    private let gate = NSLock()
    private var level = 0

    private init() {}

    func set(_ newLevel: Int) {
        gate.lock()
        level = newLevel
        gate.unlock()
    }

    func read() -> Int {
        return level  // finding: thread.mixed-guard
    }
}

// Near miss: one lock throughout, and a copy of the list is handed out.
final class PilotList {  // entity: singleton PilotList lazy language
    static let shared = PilotList()
    private let gate = NSLock()
    private var pilots: [String] = []

    private init() {}

    func add(_ pilot: String) {
        gate.lock()
        pilots.append(pilot)
        gate.unlock()
    }

    func clear() {
        gate.lock()
        pilots.removeAll()
        gate.unlock()
    }

    func all() -> [String] {
        gate.lock()
        defer { gate.unlock() }
        return pilots
    }
}

// Asks for itself.
final class DutyBook {  // entity: singleton DutyBook lazy language
    static let shared = DutyBook()
    private var entries = 0

    private init() {
        begin()
    }

    private func begin() {
        DutyBook.shared.enter()  // finding: init.reentrant
    }

    func enter() {
        entries += 1
    }
}

// Who is listed is told of each signal.
protocol Keeper: AnyObject {
    func heard(_ signal: Int)
}

final class SignalMast {  // entity: singleton SignalMast lazy language
    static let shared = SignalMast()
    private var keepers: [Keeper] = []

    private init() {}

    func attach(_ keeper: Keeper) {
        keepers.append(keeper)
    }

    func detach(_ keeper: Keeper) {
        keepers.removeAll { $0 === keeper }
    }

    func raise(_ signal: Int) {
        for keeper in keepers {
            keeper.heard(signal)
        }
    }
}

final class Lookout: Keeper {
    private var last = 0

    init() {
        SignalMast.shared.attach(self)  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
    }

    func heard(_ signal: Int) {
        last = signal
    }

    func close() {
        last = 0
    }
}

// Near miss: taken out at its end.
final class Bosun: Keeper {
    init() {
        SignalMast.shared.attach(self)  // near: lifetime.dangling-subscriber
    }

    func heard(_ signal: Int) {
        close()
    }

    func close() {
        SignalMast.shared.detach(self)
    }
}

// Registered when it is made and again by a method.
final class Steward: Keeper {
    private var last = 0

    init() {
        SignalMast.shared.attach(self)
    }

    func wake() {
        SignalMast.shared.attach(self)  // finding: lifetime.duplicate-subscription
    }

    func heard(_ signal: Int) {
        last = signal
    }

    func close() {
        SignalMast.shared.detach(self)
    }
}

// Only ever added to.
final class Logbook {  // entity: singleton Logbook lazy language
    static let shared = Logbook()
    private var lines: [String] = []

    private init() {}

    func write(_ line: String) {
        lines.append(line)  // finding: lifetime.grows-forever
    }
}

// Reads the environment.
final class NamePlate {  // entity: singleton NamePlate lazy language
    static let shared = NamePlate()
    private var name: String?

    private init() {
        name = ProcessInfo.processInfo.environment["HARBOUR"]  // finding: init.reads-environment
    }

    func rename(_ newName: String) {
        name = newName
    }
}

// Circles: knows who uses it.
final class Plan {  // entity: singleton Plan lazy language
    static let shared = Plan()
    private var berths = 0

    private init() {}

    func change(_ berther: Berther) {
        berths += 1
        berther.stop()  // finding: coupling.cycle
    }

    func count() -> Int {
        return berths
    }
}

final class Berther {
    private var free = 0

    func arrive() {
        free = Plan.shared.count()  // finding: coupling.hidden-dependency
    }

    func stop() {
        free = 0
    }
}

// Passed through three functions that do nothing with it.
final class Permit {
    func valid() -> Bool {
        return true
    }
}

func check(_ permit: Permit) -> Bool {
    return permit.valid()
}

func gate(_ permit: Permit) -> Bool {
    return check(permit)
}

func quay(_ permit: Permit) -> Bool {
    return gate(permit)
}

func pier(_ permit: Permit) -> Bool {  // finding: coupling.long-handoff
    return quay(permit)
}

/// There is only one office in the harbour.
final class Office {  // finding: single.meant-single
    private var opened = 0

    func open() {
        opened += 1
    }
}

func day() {
    Thread.detachNewThread {
        TideBoard.shared.set(3)
    }
    let first = Office()
    let second = Office()
    first.open()
    second.open()
}
