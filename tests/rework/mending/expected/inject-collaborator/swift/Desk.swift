import Foundation

final class TideFile {
    let path: String
    init(path: String) { self.path = path }
    func read() -> String { return (try? String(contentsOfFile: path)) ?? "" }
}

final class Desk {
    private let tides: TideFile
    let port: String

    init(port: String, tides: TideFile? = nil) {
        self.port = port
        self.tides = tides ?? TideFile(path: port + ".txt")
    }

    func height() -> Int { return tides.read().count }
}

final class Board {
    private let tides: TideFile
    private let rows: Int

    init(rows: Int, tides: TideFile? = nil) {
        self.tides = tides ?? TideFile(path: "board.txt")
        self.rows = rows
    }

    func width() -> Int { return tides.read().count + rows }
}
