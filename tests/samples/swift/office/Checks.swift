import Foundation

// Nothing before it is opened.
final class RadarPlot {  // entity: singleton RadarPlot lazy none
    private static var plot: RadarPlot?
    private var echoes = 0

    private init() {}

    static func open() {
        plot = RadarPlot()
    }

    static func get() -> RadarPlot? {
        return plot  // finding: single.may-return-nothing
    }

}

// The lock is the caller's own.
final class CargoScale {  // entity: singleton CargoScale lazy lock
    private static var scale: CargoScale?
    private var load = 0.0

    private init() {}

    static func get() -> CargoScale {
        let lock = NSLock()
        lock.lock()  // finding: thread.wrong-lock
        defer { lock.unlock() }
        if scale == nil {
            scale = CargoScale()  // finding: init.lazy-needless
        }
        return scale!
    }

}

// Tested once only.
final class TugList {  // entity: singleton TugList lazy double-check-unsound
    private static var tugs: TugList?
    private static let gate = NSLock()  // harmless: gate
    private var count = 0

    private init() {}

    static func get() -> TugList {
        if tugs == nil {  // finding: thread.double-check-incomplete
            gate.lock()
            tugs = TugList()  // finding: init.lazy-needless
            gate.unlock()
        }
        return tugs!
    }

    func add() {
        count = count + 1
    }
}

// A lazy var has no guard.
final class Office {  // entity: singleton Office lazy language
    static let shared = Office()
    lazy var names: [String] = []
    private init() {}
    func add(_ name: String) {
        names.append(name)  // finding: lifetime.grows-forever
    }
}
