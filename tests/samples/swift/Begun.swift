// Statics of a class that is not in the tree, and one that begins with arithmetic.
public extension Quarter {
  private static var shown = false  // entity: static-field shown eager language

  static func show() {
    shown = true
  }
}

class Tags {
  static var last: Tag = ("tags".hashValue % 1096)  // entity: static-field last lazy language

  func next() -> Tag {
    Tags.last += 1
    return Tags.last
  }
}
