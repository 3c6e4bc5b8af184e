// A layer that may reach none.
class Hall {
    func show() -> Int {
        return HarbourDues.shared.total()  // finding: coupling.layer-breach
    }
}
