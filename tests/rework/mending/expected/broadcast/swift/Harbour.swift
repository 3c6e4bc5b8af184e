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

/// Tells those who listen, in the order in which they came, that the program starts.
private final class StartUp {
    private var listeners: [() -> Void] = []

    func add(_ listener: @escaping () -> Void) {
        listeners.append(listener)
    }

    func announce() {
        listeners.forEach { $0() }
    }
}

/// Opens the harbour.
func open(_ day: String) {
    let startUp = StartUp()
    startUp.add { Tides.shared.start(day) }
    startUp.add { Berths.shared.start(day) }
    startUp.add { Pilots.shared.start("") }
    startUp.announce()
}

open("Monday")
