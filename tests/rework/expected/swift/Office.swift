final class TideTable {
    static let shared = TideTable()
    private(set) var asked = 0

    private init() {}

    func height(_ hour: Int) -> Int {
        asked += 1
        return 3 + hour % 6
    }
}

class Pilot {
    private let name: String
    private let draught: Int
    private let tideTable: TideTable

    init(name: String, draught: Int = 1, tideTable: TideTable) {
        self.tideTable = tideTable
        self.name = name
        self.draught = draught
    }

    func advice(_ hour: Int) -> String {
        let deep = self.tideTable.height(hour) > draught
        return name + (deep ? " sails at " : " waits at ") + String(hour)
    }
}

class Ferry {
    private let tideTable: TideTable

    init(tideTable: TideTable) {
        self.tideTable = tideTable
    }

    func departure() -> Int {
        var hour = 0
        while self.tideTable.height(hour) < 6 {
            hour += 1
        }
        return hour
    }
}

class Office {
    private var pilots: [Pilot] = []
    private let tideTable: TideTable

    init(tideTable: TideTable = TideTable.shared) {
        self.tideTable = tideTable
    }

    func hire(name: String, draught: Int) {
        pilots.append(Pilot(name: name, draught: draught, tideTable: self.tideTable))
    }

    func hire(name: String) {
        pilots.append(Pilot(name: name, tideTable: self.tideTable))
    }

    func day() -> String {
        var lines = pilots.map { $0.advice(4) }
        lines.append("ferry at \(Ferry(tideTable: self.tideTable).departure())")
        return lines.joined(separator: "\n")
    }
}
