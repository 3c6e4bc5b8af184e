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

    init(name: String, draught: Int = 1) {
        self.name = name
        self.draught = draught
    }

    func advice(_ hour: Int) -> String {
        let deep = TideTable.shared.height(hour) > draught
        return name + (deep ? " sails at " : " waits at ") + String(hour)
    }
}

class Ferry {
    func departure() -> Int {
        var hour = 0
        while TideTable.shared.height(hour) < 6 {
            hour += 1
        }
        return hour
    }
}

class Office {
    private var pilots: [Pilot] = []

    func hire(name: String, draught: Int) {
        pilots.append(Pilot(name: name, draught: draught))
    }

    func hire(name: String) {
        pilots.append(Pilot(name: name))
    }

    func day() -> String {
        var lines = pilots.map { $0.advice(4) }
        lines.append("ferry at \(Ferry().departure())")
        return lines.joined(separator: "\n")
    }
}
