// The shared one is a default beside others, which two constructors offer.
public class DrawerStore {  // near: single.open-constructor  // entity: singleton DrawerStore lazy language
    private var kept: [String: String] = [:]

    public init(size: Int) {  // near: single.open-constructor
        kept.reserveCapacity(size)
    }

    public convenience init(label: String) {
        self.init(size: label.count)
    }

    public static let standard = DrawerStore(label: "standard")

    public func put(_ key: String, _ value: String) {
        kept[key] = value
    }
}
