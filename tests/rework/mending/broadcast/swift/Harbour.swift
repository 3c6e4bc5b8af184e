final class Tides {
    static let shared = Tides()
    private var started = 0

    private init() {}

    func start(_ day: String) {
        started += 1
        print("tides \(started)\(day)")
    }
}

final class Berths {
    static let shared = Berths()
    private var started = 0

    private init() {}

    func start(_ day: String) {
        started += 1
        print("berths \(started)\(day)")
    }
}

final class Pilots {
    static let shared = Pilots()
    private var started = 0

    private init() {}

    func start(_ day: String) {
        started += 1
        print("pilots \(started)\(day)")
    }
}

/// Opens the harbour.
func open(_ day: String) {
    Tides.shared.start(day)
    Berths.shared.start(day)
    Pilots.shared.start("")
}

open("Monday")
