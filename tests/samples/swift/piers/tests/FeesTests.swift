
// Leaves behind what it set.
func testTwice() {
    fees.total = 30  // finding: coupling.test-leak
    precondition(fees.total == 30)
}
