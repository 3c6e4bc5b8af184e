// Works only after a call, and is used before it; near miss: it tests.
class Chart {
    func depth() -> Int {
        return 4
    }
}

class Plotter {  // entity: singleton Plotter lazy language
    static let shared = Plotter()
    private var chart: Chart?
    private var uses = 0

    private init() {
        uses = 0
    }

    func load(_ loaded: Chart) {
        chart = loaded
    }

    func depth() -> Int {
        uses = 1
        return chart!.depth()
    }
}

class Surveyor {  // entity: singleton Surveyor lazy language
    static let shared = Surveyor()
    private var chart: Chart?

    private init() {
    }

    func load(_ loaded: Chart) {
        chart = loaded
    }

    func depth() -> Int {
        return chart == nil ? 0 : chart!.depth()
    }
}

func plotTheDay(_ chart: Chart) -> Int {
    let depth = Plotter.shared.depth()  // finding: init.needs-setup
    let other = Surveyor.shared.depth()  // near: init.needs-setup
    Plotter.shared.load(chart)
    Surveyor.shared.load(chart)
    return depth + other
}
