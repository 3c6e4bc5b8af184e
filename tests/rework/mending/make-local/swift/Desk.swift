final class Desk {
    private let open = 1
    private static var served = 2

    func serve(_ ships: Int) {
        Desk.served += ships * open
    }

    func all() -> Int {
        return Self.served
    }
}

let desk = Desk()
desk.serve(3)
print(desk.all())
