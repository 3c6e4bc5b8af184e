// Leaves behind what it entered.
class DuesTests {
    func testAddsUp() {
        HarbourDues.shared.enter(3)  // finding: coupling.test-leak
        HarbourDues.shared.enter(4)
    }
}
