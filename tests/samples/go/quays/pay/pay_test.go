package pay

import (
	"testing"

	"harbour/quays/ledgers"
)

// Leaves behind what it entered.
func TestAddsUp(t *testing.T) {
	ledgers.TheDues().Enter(3) // finding: coupling.test-leak
	ledgers.TheDues().Enter(4)
}
