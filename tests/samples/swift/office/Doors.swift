import Foundation

// One for each quay.
final class Quay {
    private static var quays: [String: Quay] = [:]  // entity: registry quays lazy language
    var ships = 0

    private init() {}

    static func of(_ name: String) -> Quay {
        if let quay = quays[name] {  // finding: thread.check-then-act
            return quay
        }
        let quay = Quay()
        quays[name] = quay
        return quay
    }
}
