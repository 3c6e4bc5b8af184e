// The fees of the pilots, in a layer of their own.
final class PilotFees {
    var total: Int = 0

    func enter(_ coins: Int) {
        self.total = coins
    }

    func clear() {
        self.total = 0
    }
}

let fees: PilotFees = PilotFees()  // entity: shared-instance fees lazy language

// Near miss: a layer may reach its own.
func twice(_ of: PilotFees) -> Int {
    return fees.total + of.total  // near: coupling.layer-breach
}
