import Foundation

final class TideFile {
    let path: String
    init(path: String) { self.path = path }
    func read() -> String { return (try? String(contentsOfFile: path)) ?? "" }
}

final class Desk {
    private let tides: TideFile
    let port: String

    init(port: String) {
        self.port = port
        self.tides = TideFile(path: port + ".txt")
    }

    func height() -> Int { return tides.read().count }
}

final class Board {
    private let tides = TideFile(path: "board.txt")
    private let rows: Int

    init(rows: Int) {
        self.rows = rows
    }

    func width() -> Int { return tides.read().count + rows }
}
