import Foundation

class CargoScale {
    static let shared = CargoScale()
    private var crates: [Int] = []

    private init() {
    }

    /// Puts one on.
    func weigh(_ crate: Int) {
        crates.append(crate)
        settle()
    }

    func settle() {
        crates.sort()
    }
}

func unload() {
    DispatchQueue.global().async {
        CargoScale.shared.weigh(3)
    }
    CargoScale.shared.weigh(4)
}
