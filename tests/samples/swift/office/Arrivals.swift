import Foundation

final class Arrivals {
    private let book = BerthBook.shared

    func arrive(_ ship: String) -> Int {
        book.assign(ship, to: 4)  // finding: coupling.hidden-dependency
        PilotRoster.get().add(ship)
        waiting.append(ship)
        guard let first = waiting.first, first != ship else { return limit }
        return BerthBook.shared.count() + Tickets.draw()
    }
}

extension Arrivals {
    func depart() {
        waiting.removeAll()
        book.assign("", to: 4)
    }
}

extension BerthBook {
    static var closed = false  // entity: static-field closed eager language

    static func close() {
        closed = true
    }
}
