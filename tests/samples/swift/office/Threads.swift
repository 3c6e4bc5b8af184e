import Foundation

// Counted by two threads.
final class Tally {  // entity: static-holder Tally eager language
    static var ships = 0
    static var boats = 0
    static let gate = NSLock()  // harmless: gate

    static func arrive() {
        ships += 1  // finding: thread.lost-update
        gate.lock()
        boats += 1
        gate.unlock()
    }

    static func watch() {
        DispatchQueue.global().async {
            Tally.arrive()
        }
        arrive()
    }
}
