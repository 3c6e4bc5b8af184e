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
