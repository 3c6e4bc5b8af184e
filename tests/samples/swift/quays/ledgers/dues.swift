// The dues of the harbour, in a layer of their own.
class HarbourDues {  // entity: singleton HarbourDues lazy language
    static let shared = HarbourDues()
    private var sum = 0

    private init() {
    }

    func enter(_ coins: Int) {
        sum = coins
    }

    func clear() {
        sum = 0
    }

    func total() -> Int {
        return sum
    }
}
