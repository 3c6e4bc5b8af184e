final class TideTable {
    static let shared = TideTable()

    private var first = 4

    private init() {}

    func height(_ day: Int) -> Int {
        return first + day
    }

    func raise(_ by: Int) {
        first += by
    }
}

final class Desk {
    private var entered = 0

    func enter(_ day: Int) -> Int {
        entered += 1
        TideTable.shared.raise(1)
        return TideTable.shared.height(day) + entered
    }
}

let desk = Desk()
print(desk.enter(1) + desk.enter(2))
