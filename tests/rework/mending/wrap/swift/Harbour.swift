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

final class Pilot {
    private let name: String

    init(name: String) {
        self.name = name
    }

    func mayEnter(draught: Int, day: Int) -> Bool {
        Tides.raise(1)
        return Tides.height(on: day) > draught && !name.isEmpty
    }
}

print(Pilot(name: "first").mayEnter(draught: 3, day: 1))
