package held

import "testing"

// It imports the test framework: what it does says nothing of the program.
func Reset(t *testing.T) {
	desk.lines = 0 // near: thread.mixed-guard
	t.Log("reset")
}
