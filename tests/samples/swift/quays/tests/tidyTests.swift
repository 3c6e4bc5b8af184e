// Near miss: puts it back.
class TidyTests {
    func testAddsUpAndClears() {
        HarbourDues.shared.enter(3)  // near: coupling.test-leak
        HarbourDues.shared.clear()
    }
}
