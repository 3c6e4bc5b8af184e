import Foundation

class CargoScale {
    static let shared = CargoScale()
    private let lock = NSRecursiveLock()
    private var crates: [Int] = []

    private init() {
    }

    /// Puts one on.
    func weigh(_ crate: Int) {
        lock.lock()
        defer { lock.unlock() }
        crates.append(crate)
        settle()
    }

    func settle() {
        lock.lock()
        defer { lock.unlock() }
        crates.sort()
    }
}

func unload() {
    DispatchQueue.global().async {
        CargoScale.shared.weigh(3)
    }
    CargoScale.shared.weigh(4)
}
