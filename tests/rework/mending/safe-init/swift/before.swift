class TideTable {
    private static var table: TideTable?
    private var rows: [Int] = []

    private init() {
    }

    static func get() -> TideTable {
        if table == nil {
            table = TideTable()
        }
        return table!
    }

    func add(_ row: Int) {
        rows.append(row)
    }
}
