// Asks for itself.
final class DutyBook {  // entity: singleton DutyBook lazy language
    static let shared = DutyBook()
    private var entries = 0

    private init() {
        begin()
    }

    private func begin() {
        DutyBook.shared.enter()  // finding: init.reentrant
    }

    func enter() {
        entries += 1
    }
}

// Who is listed is told of each signal.
protocol Keeper: AnyObject {
    func heard(_ signal: Int)
}
