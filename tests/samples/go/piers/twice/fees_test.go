package twice

import (
	"testing"

	"harbour/piers/ledgers"
)

// Leaves behind what it set.
func TestTwice(t *testing.T) {
	ledgers.TheFees().Total = 30 // finding: coupling.test-leak
	ledgers.TheFees().Enter(40)
}
