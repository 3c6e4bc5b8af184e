// Near miss: a layer that may.
class Desk {
    func pay(_ coins: Int) {
        HarbourDues.shared.enter(coins)  // near: tie.layer-breach  // finding: tie.hidden-dependency
    }
}
