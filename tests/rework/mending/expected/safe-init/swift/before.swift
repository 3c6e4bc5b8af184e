class TideTable {
    private static let table = TideTable()
    private var rows: [Int] = []

    private init() {
    }

    static func get() -> TideTable {
        return table
    }

    func add(_ row: Int) {
        rows.append(row)
    }
}
