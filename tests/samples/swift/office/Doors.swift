import Foundation

// The shift that is on, set by who begins it.
final class Shift {
    static var current: Shift?  // entity: shared-instance current lazy none
    let name: String

    init(name: String) {
        self.name = name
    }

    static func begin(_ name: String) {
        current = Shift(name: name)
    }
}

// One for each quay.
final class Quay {
    private static var quays: [String: Quay] = [:]  // entity: registry quays lazy language
    var ships = 0

    private init() {}

    static func of(_ name: String) -> Quay {
        if let quay = quays[name] {  // finding: thread.check-then-act
            return quay
        }
        let quay = Quay()
        quays[name] = quay
        return quay
    }
}

func open() {
    Shift.begin("day")
    Quay.of("north").ships = 2
}
