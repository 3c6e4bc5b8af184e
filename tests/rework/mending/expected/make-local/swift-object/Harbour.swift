final class TideTable {
    private var first = 4

    init() {}

    func height(_ day: Int) -> Int {
        return first + day
    }

    func raise(_ by: Int) {
        first += by
    }
}

final class Desk {
    private var tideTable: TideTable = TideTable()
    private var entered = 0

    func enter(_ day: Int) -> Int {
        entered += 1
        tideTable.raise(1)
        return tideTable.height(day) + entered
    }
}

let desk = Desk()
print(desk.enter(1) + desk.enter(2))
