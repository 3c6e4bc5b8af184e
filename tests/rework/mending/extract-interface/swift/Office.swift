/// The water's height, day by day.
public final class TideTable {
    private var first = 4

    func height(_ day: Int) -> Int {
        return first + day
    }

    @discardableResult
    func raise(by step: Int) throws -> Int {
        first += step
        return first
    }

    func forget() {
        first = 0
    }
}

class Pilot {
    private let tides: TideTable

    init(tides: TideTable) {
        self.tides = tides
    }

    func mayEnter(draught: Int, day: Int) -> Bool {
        try? tides.raise(by: 1)
        return tides.height(day) > draught
    }
}

func deepEnough(_ tides: TideTable?, draught: Int) -> Bool {
    return (tides?.height(0) ?? 0) > draught
}

let tides = TideTable()
print(Pilot(tides: tides).mayEnter(draught: 3, day: 1) && deepEnough(tides, draught: 4))
