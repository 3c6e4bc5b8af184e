enum Tides {
    private static var first = 4

    static func height(on day: Int) -> Int {
        return first + day
    }

    static func raise(_ by: Int) {
        first += by
    }

    static func forget() {
        first = 0
    }
}

class TidesWrapper {
    func height(on day: Int) -> Int {
        return Tides.height(on: day)
    }

    func raise(_ by: Int) {
        Tides.raise(by)
    }
}

final class Pilot {
    private let tidesWrapper: TidesWrapper
    private let name: String

    init(name: String, tidesWrapper: TidesWrapper = TidesWrapper()) {
        self.tidesWrapper = tidesWrapper
        self.name = name
    }

    func mayEnter(draught: Int, day: Int) -> Bool {
        self.tidesWrapper.raise(1)
        return self.tidesWrapper.height(on: day) > draught && !name.isEmpty
    }
}

print(Pilot(name: "first").mayEnter(draught: 3, day: 1))
