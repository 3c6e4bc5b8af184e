// Near miss: a layer that may.
class Desk {
    func pay(_ coins: Int) {
        HarbourDues.shared.enter(coins)  // near: coupling.layer-breach  // finding: coupling.hidden-dependency
    }
}
