// What goes on in the next line, and values that are copied or may fail.
final class Locks {  // entity: singleton Locks lazy language
  static let shared = Locks()
  private var gates = 0

  private init() {}

  func count(_ chamber: Chamber?, _ other: Chamber) throws -> Int {
    let open = chamber?.gates
               ?? other.gates
    let water = chamber?.length ?? 1
      * other.width
    gates = take(copy other) + water + open
    if let level = try? chamber?.level() {
      gates += level
    }
    ask {
      gates += 1
    }
    label: {
      gates += 2
    }
    return gates
  }
}
