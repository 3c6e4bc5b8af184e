// Code that is easily passed over: the right side of a sum, observers, subscripts, statements on one line.
import UIKit

class Hub { static let shared = Hub(); var level = 0; func up() -> Int { level += 1; return level } }  // entity: singleton Hub lazy language  // finding: single.open-constructor

class Mole {
    var height = 0 {
        didSet { _ = Hub.shared.up() }  // near: coupling.hidden-dependency
    }
    subscript(berth: Int) -> Int {
        get { return Hub.shared.level }
        set { Hub.shared.level = newValue }
    }
    func rest(_ used: Int) -> Int { return used - Hub.shared.level }
    func sum(_ used: Int) -> Int { return used * Hub.shared.up() + 1 }
}

extension UIView {
    static var primed = false  // entity: static-field primed eager language
    static func prime() {
        guard !primed else { return }
        primed = true
    }
}

func start() -> Bool { UIView.prime(); return UIView.primed }

class Winch {  // entity: singleton Winch lazy language  // finding: single.open-constructor
    static let main: Winch = { let winch = Winch(); winch.turns = 1; return winch }()
    var turns = 0
    func turn() { turns += 1 }
}

func depth() -> Int {
#if os(tvOS)
    return 0
#else
    return Winch.main.turns
#endif
}
