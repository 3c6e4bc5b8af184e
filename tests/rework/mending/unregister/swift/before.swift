protocol Keeper: AnyObject {
    func heard(_ signal: Int)
}

class SignalMast {
    static let shared = SignalMast()
    private var keepers: [Keeper] = []

    private init() {
    }

    func addKeeper(_ keeper: Keeper) {
        keepers.append(keeper)
    }

    func raise(_ signal: Int) {
        for keeper in keepers {
            keeper.heard(signal)
        }
    }
}

class Lookout: Keeper {
    private var last = 0

    init() {
        SignalMast.shared.addKeeper(self)
    }

    func heard(_ signal: Int) {
        last = signal
    }

    func close() {
        last = 0
    }
}
