final class Desk {
    private let open = 1
    private var served = 2

    func serve(_ ships: Int) {
        served += ships * open
    }

    func all() -> Int {
        return served
    }
}

let desk = Desk()
desk.serve(3)
print(desk.all())
