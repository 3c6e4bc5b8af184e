
// Near miss: puts back what it found.
func testOnce() {
    let before = fees.total
    fees.total = 30  // near: coupling.test-leak
    fees.total = before
}
