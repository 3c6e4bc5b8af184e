import Foundation

// A static let: made once, under the language's guard.
final class BerthBook {  // entity: singleton BerthBook lazy language
    static let shared = BerthBook()
    private let lock = NSLock()
    private var berths: [String: Int] = [:]

    private init() {}

    func assign(_ ship: String, to berth: Int) {
        lock.lock()
        defer { lock.unlock() }
        berths[ship] = berth  // near: lifetime.grows-forever
    }

    func count() -> Int {
        lock.lock()
        defer { lock.unlock() }
        return berths.count
    }
}

// An unguarded check over a static var.
final class PilotRoster {  // entity: singleton PilotRoster lazy none
    private static var roster: PilotRoster?
    private var pilots: [String] = []

    private init() {}

    static func get() -> PilotRoster {
        if roster == nil {
            roster = PilotRoster()  // finding: thread.unguarded-creation
        }
        return roster!
    }

    func add(_ pilot: String) {
        pilots.append(pilot)  // finding: lifetime.grows-forever
    }
}

struct Tickets {  // entity: static-holder Tickets eager language
    static var next = 1
    static func draw() -> Int {
        next += 1  // finding: thread.lost-update
        return next
    }
}

var waiting: [String] = []  // entity: global-variable waiting lazy language
let limit = 12  // harmless: limit

enum Flag {
    case up, down
}

#if os(iOS)
let port = "north"  // harmless: port
#else
let port = "south"
#endif
