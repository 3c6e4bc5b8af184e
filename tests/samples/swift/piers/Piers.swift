// Others run while it is made; near misses: nothing runs in between, or what is promised is kept.
final class Radio {
    private var channel: Int = 16

    func tune(_ channel: Int) {
        self.channel = channel
    }
}

private var radioNow: Radio?  // entity: shared-instance radioNow lazy none
private var sonarNow: Radio?  // entity: shared-instance sonarNow lazy none
private var radarNow: Radio?  // harmless: radarNow

func radio() async -> Radio {
    if radioNow == nil {
        let channel = await askForChannel()  // finding: thread.await-gap
        radioNow = Radio()  // finding: thread.unguarded-creation
        radioNow!.tune(channel)
    }
    return radioNow!
}

func sonar() async -> Radio {
    let channel = await askForChannel()  // near: thread.await-gap
    if sonarNow == nil {
        sonarNow = Radio()  // finding: thread.unguarded-creation
        sonarNow!.tune(channel)
    }
    return sonarNow!
}

func askForChannel() async -> Int {
    return 16
}

final class Echo {
    func read() -> String {
        return (try? String(contentsOfFile: "echo")) ?? ""
    }
}

// Passed on by four; near misses: used on the way, or made there.
final class Papers {
    func inOrder() -> Bool {
        return true
    }
}

func stamp(_ papers: Papers) -> Bool {
    return papers.inOrder()
}

func clerk(_ papers: Papers) -> Bool {
    return stamp(papers)
}

func counter(_ papers: Papers) -> Bool {
    return clerk(papers)
}

func gate(_ papers: Papers) -> Bool {  // near: coupling.long-handoff
    return papers.inOrder() && counter(papers)
}

// Threads: what is sound, beside what is not.
final class Windows {  // entity: singleton Windows lazy lock
    private static let gate = NSLock()  // harmless: gate
    private static var one: Windows?
    private var panes: [String] = []

    private init() {  // near: single.open-constructor
        for pane in 0..<9 {
            panes.append("pane \(pane)")
        }
    }

    static func get() -> Windows {
        gate.lock()  // near: thread.wrong-lock thread.lock-every-access init.lazy-needless
        defer { gate.unlock() }
        if one == nil {  // near: thread.double-check-incomplete thread.double-check-unsound
            one = Windows()  // near: thread.unguarded-creation init.lazy-needless
        }
        return one!
    }

    func take() -> String {
        Windows.gate.lock()
        defer { Windows.gate.unlock() }
        return panes.removeLast()  // near: thread.mixed-guard thread.check-then-act
    }
}

// Tested before the lock only.
final class Shutters {  // entity: singleton Shutters lazy double-check-unsound
    private static let gate = NSLock()  // harmless: gate
    private static var one: Shutters?
    private var closed = 0

    private init() {}

    static func get() -> Shutters {
        if one == nil {  // finding: thread.double-check-incomplete
            gate.lock()
            one = Shutters()  // finding: init.lazy-needless
            gate.unlock()
        }
        return one!
    }

    func close() {
        closed = 1
    }
}
