package clean

import (
	"testing"

	"harbour/piers/ledgers"
)

// Near miss: puts back what it found.
func TestOnce(t *testing.T) {
	fees := ledgers.TheFees()
	before := fees.Total
	fees.Total = 30 // near: coupling.test-leak
	fees.Total = before
}
