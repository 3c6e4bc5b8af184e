
// A layer that may reach none, through the module.
final class Board {
    private var shown: Int = 0

    func show() {
        self.shown = fees.total  // finding: coupling.layer-breach
    }
}
