class TideTable {
    static let shared = TideTable()
    private var levels = [3, 5, 4]

    private init() {
    }

    func raise(by: Int) {
        levels = levels.map { $0 + by }
    }

    func level(hour: Int) -> Int {
        return levels[hour % 3]
    }
}

func mayEnter(draught: Int, hour: Int) -> Bool {
    return TideTable.shared.level(hour: hour) > draught
}
